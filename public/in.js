/* Reports page views: the address, the page that somebody came from, a random word for the visitor (none with
   data-visitor="off"). Nothing that says who it is, no cookie. */
(function () {
  var me = document.currentScript;
  var to = new URL('in/' + me.dataset.key, me.src).href;
  var from = document.referrer;
  var last;
  function word() {
    return Array.from(crypto.getRandomValues(new Uint8Array(20)), function (byte) {
      return (byte % 36).toString(36);
    }).join('');
  }
  function visitor() {
    if (me.dataset.visitor === 'off') return '';
    try {
      return (localStorage['in.visitor'] = localStorage['in.visitor'] || word());
    } catch (e) {
      return '';
    }
  }
  function report(event) {
    event.id = event.id || word();
    event.site = 'here';
    event.url = location.href;
    event.visitor = visitor();
    event.at = new Date().toISOString();
    var body = JSON.stringify({ sent: event.at, events: [event] });
    if (!navigator.sendBeacon || !navigator.sendBeacon(to, body)) {
      fetch(to, { method: 'POST', body: body, keepalive: true, mode: 'no-cors' }).catch(function () {});
    }
  }
  function view() {
    if (location.href === last) return;
    last = location.href;
    report({ kind: 'view', referrer: from });
  }
  // vestigon.converted({ order: 'A1', value: 4900, currency: 'EUR' }); a value is in minor units, 49.00 is 4900
  window.vestigon = {
    converted: function (what) {
      report(Object.assign({}, what, { kind: 'convert' }));
    },
  };
  // a page that changes its address without loading is another view
  ['pushState', 'replaceState'].forEach(function (name) {
    var real = history[name];
    history[name] = function () {
      real.apply(this, arguments);
      view();
    };
  });
  addEventListener('popstate', view);
  view();
})();

@use('App\Support\Money')
@use('App\Troubles\ProofPicture')
<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width">
<meta name="referrer" content="no-referrer">
<title>Audit of {{ $client->name }}, {{ $today }}</title>
<style>
:root { color-scheme: light; --ink: #1d1d1b; --quiet: #5f6160; --rule: #d9d5ca; --ours: #0b665f; --wrong: #b3261e; }
body { margin: 2.5rem auto; max-width: 46rem; padding: 0 1rem; font: 15px/1.5 system-ui, sans-serif; color: var(--ink); }
h1 { font-size: 1.5rem; margin: 0; } h2 { font-size: 1.05rem; margin: 2rem 0 .4rem; }
header p, .quiet { color: var(--quiet); margin: .2rem 0 0; }
.sum { font-size: 1.15rem; margin: 1.4rem 0 .6rem; }
table { border-collapse: collapse; width: 100%; } th { font-weight: 400; color: var(--quiet); text-align: left; }
th, td { padding: .45rem .5rem .45rem 0; border-bottom: 1px solid var(--rule); vertical-align: top; }
.n { text-align: right; font-variant-numeric: tabular-nums; white-space: nowrap; }
.bar { display: block; height: 3px; background: var(--wrong); margin: .25rem 0 0 auto; }
ul { margin: .3rem 0 0; padding-left: 1.1rem; color: var(--quiet); font-size: .88rem; }
svg { display: block; width: 100%; height: auto; border: 1px solid var(--rule); }
.key { display: flex; gap: 1.4rem; margin: .4rem 0; } .key svg { display: inline; width: 12px; height: 12px; border: 0; }
@media print { body { margin: 0; max-width: none; } tr { break-inside: avoid; } }
</style>
</head>
<body>
<header>
  <h1>{{ $client->name }}: what is wrong</h1>
  <p>{{ $today }}, with what clicks have cost since {{ $since }}. Made by Vestigon.</p>
</header>
<p class="sum">
  {{ $open->count() }} {{ $open->count() === 1 ? 'cause' : 'causes' }}; in 30 days clicks have cost
  {{ Money::text($spent, $client->currency) }}.
</p>
@if ($proof !== [])
<figure style="margin: 0">
  <svg viewBox="0 0 {{ ProofPicture::WIDE }} {{ ProofPicture::HIGH }}" role="img" aria-label="proof over the days">
    <defs>
      <pattern id="proven" width="7" height="7" patternUnits="userSpaceOnUse"><rect width="7" height="7" fill="#a1ccc7"/></pattern>
      <pattern id="broken" width="7" height="7" patternUnits="userSpaceOnUse">
        <rect width="7" height="7" fill="#f6d9d5"/><path d="M0,7L7,0" stroke="#b3261e"/>
      </pattern>
      <pattern id="untracked" width="7" height="7" patternUnits="userSpaceOnUse">
        <rect width="7" height="7" fill="#f1eee6"/><circle cx="3.5" cy="3.5" r="0.9" fill="#5f6160"/>
      </pattern>
    </defs>
@foreach ($proof as $state => $path)
    <path d="{{ $path }}" fill="url(#{{ $state }})"/>
@endforeach
  </svg>
  <figcaption class="key">
@foreach ($proof as $state => $path)
    <span><svg viewBox="0 0 12 12"><rect width="12" height="12" fill="url(#{{ $state }})"/></svg> {{ $state }}</span>
@endforeach
  </figcaption>
</figure>
@endif
@foreach (['' => $open, 'Accepted as they are' => $accepted, 'Mended in the last two weeks' => $mended] as $title => $some)
@if ($some->isNotEmpty())
@if ($title !== '')
<h2>{{ $title }}</h2>
@endif
<table>
  <thead><tr><th>what</th><th>where</th><th class="n">ads</th><th class="n">clicks</th><th class="n">cost</th></tr></thead>
  <tbody>
@foreach ($some as $t)
    <tr>
      <td>
        {{ $t->what }}
        <div class="quiet">since {{ ($t->returned_at ?? $t->first_at)->toDateString() }}@if ($t->accepted_why), accepted until {{ $t->accepted_until }}: {{ $t->accepted_why }}@endif</div>
@if (($ads[$t->id] ?? []) !== [])
        <ul>
@foreach ($ads[$t->id] as $ad)
          <li>{{ $ad['name'] }} <span class="quiet">{{ $ad['externalId'] }}</span></li>
@endforeach
        </ul>
@endif
      </td>
      <td>{{ $t->place() }}</td>
      <td class="n">{{ $t->ads > 0 ? number_format($t->ads) : '' }}</td>
      <td class="n">{{ $t->clicks > 0 ? number_format($t->clicks) : '' }}</td>
      <td class="n">
        {{ $t->cost > 0 ? Money::text($t->cost, $client->currency) : '' }}
@if ($t->cost > 0)
        <span class="bar" style="width: {{ round(100 * $t->cost / $most) }}%"></span>
@endif
      </td>
    </tr>
@endforeach
  </tbody>
</table>
@endif
@endforeach
</body>
</html>

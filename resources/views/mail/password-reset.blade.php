{{ $person }},

somebody, most likely you, has asked for another password for Vestigon. Choose it here within {{ $minutes }} minutes:

{!! $link !!}

If it was not you, nothing is to be done: your password stays as it is.

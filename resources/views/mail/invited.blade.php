{{ $who }} would like you to work on {{ $client }} in Vestigon.

Come in here within {{ $hours }} hours; the link is good once:

{!! $link !!}

If you do not know what this is about, nothing is to be done.

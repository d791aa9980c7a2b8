<?php

declare(strict_types=1);

namespace Vestigon\Core\Command;

use Vestigon\Core\Document\Cursor;
use Vestigon\Core\Document\UnusableInput;
use Vestigon\Core\Feed\FeedReader;
use Vestigon\Core\Feed\Items;

/** ./vestigon feed: a product list's rules and its items in; each item's links, and what is wrong with it, out. */
final readonly class FeedCommand implements Command
{
    /** @throws UnusableInput */
    public function answer(Cursor $request): Answer
    {
        $items = new Items(FeedReader::read($request->at('feed')));
        $told = $problems = [];
        $isBad = false;
        foreach ($request->at('items')->list() as $i => $item) {
            $outcome = $items->next($item->stringMap());
            $told[] = ['id' => $outcome->id, 'links' => (object) $outcome->links, 'rules' => $outcome->rules];
            foreach ($outcome->problems as $problem) {
                $isBad = $isBad || $problem->code->isError();
                $problems[] = [
                    'code' => $problem->code->value,
                    'item' => $i,
                    ...$problem->column === null ? [] : ['column' => $problem->column],
                ];
            }
        }

        return new Answer(['items' => $told, 'problems' => $problems], $isBad);
    }
}

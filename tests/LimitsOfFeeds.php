<?php

namespace Tests;

use Illuminate\Testing\TestResponse;

/** What lies beyond the limits of product lists. */
trait LimitsOfFeeds
{
    private function putList(string $list): TestResponse
    {
        $feed = $this->api('POST', '/feeds', ['name' => 'f'])->json('id');

        return $this->api('PUT', "/feeds/{$feed}/file", [
            'file' => 'a-list-of-ours',
            'bytes' => strlen($list),
            'from' => 0,
            'content' => base64_encode($list),
        ]);
    }

    private function kept(TestResponse $answer): string
    {
        return $answer->status().($answer->json('message') !== '' ? ', the last good one stays' : '');
    }

    private function beyond_feed_bytes(): string
    {
        config(['limits.feed_bytes' => 1 << 20]);

        return $this->kept($this->putList((string) gzencode("id,link\n".str_repeat("1,https://a.example/\n", 60_000))));
    }

    private function beyond_feed_columns(): string
    {
        return $this->kept($this->putList(implode(',', range(0, config('limits.feed_columns')))."\n1\n"));
    }

    private function beyond_feed_rules(): TestResponse
    {
        $feed = $this->putList("id,link\n1,https://a.example/\n")->json('feed');
        $rules = array_fill(0, config('limits.feed_rules') + 1, ['title' => '', 'do' => [['take' => 'a']]]);

        return $this->api('POST', "/feeds/{$feed['id']}/trial", ['rules' => $rules, 'reads' => $feed['reads']]);
    }
}

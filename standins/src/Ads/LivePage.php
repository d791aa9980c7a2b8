<?php

declare(strict_types=1);

namespace Standins\Ads;

use Standins\Store;
use Symfony\Component\HttpFoundation\RedirectResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;

/** The page where a platform's ads are live: what a person clicks here is a real click. */
final readonly class LivePage
{
    private const SHOWN = 30;

    public function __construct(private Platform $platform, private Store $store) {}

    public function page(Request $request): Response
    {
        $words = trim($request->query->getString('q'));
        $ads = $this->store->rows(
            'select ad.id, ad.name, g.name as parent, g.keywords, c.name as above
             from nodes ad join nodes g on g.platform = ad.platform and g.id = ad.parent
             left join nodes c on c.platform = g.platform and c.id = g.parent
             where ad.platform = ? and ad.level = ?
                and (? = \'\' or ad.id = ? or ad.name like ? or c.name like ? or g.name like ?)
             order by ad.position limit '
                .self::SHOWN,
            [
                $this->platform->host,
                $this->platform->adLevel(),
                $words,
                $words,
                "%{$words}%",
                "%{$words}%",
                "%{$words}%",
            ],
        );
        $e = static fn (string $s): string => htmlspecialchars($s, ENT_QUOTES);
        $items = '';
        foreach ($ads as $ad) {
            $keyword = json_decode((string) $ad['keywords'], true)[0] ?? ['text' => '', 'match' => ''];
            $href =
                '/click?'
                .http_build_query(['ad' => $ad['id'], 'term' => $keyword['text'], 'match' => $keyword['match']]);
            $for = $keyword['text'] === '' ? '' : " · “{$e($keyword['text'])}”";
            $items .= "<li><a href=\"{$e($href)}\" data-ad=\"{$e($ad['id'])}\">{$e($ad['name'])}</a>"
                ."<small>Ad · {$e((string) $ad['above'])} › {$e($ad['parent'])}{$for}</small></li>";
        }
        $html = <<<HTML
        <!doctype html><html lang="en"><meta charset="utf-8"><title>{$e($this->platform->title)}</title>
        <style>
          body{font:16px/1.5 Georgia,serif;max-width:44rem;margin:3rem auto;padding:0 1rem;color:#222}
          h1{font-size:1.4rem}
          li{margin:.7rem 0;list-style:none}
          ul{padding:0}
          a{color:#0b4f8a;font-size:1.1rem}
          small{display:block;color:#666}
          input{font:inherit;padding:.4rem .6rem;width:24rem}
        </style>
        <h1>{$e($this->platform->title)}</h1>
        <form><input name="q" value="{$e($words)}" aria-label="Search" placeholder="words, or an ad's number"></form>
        <ul>{$items}</ul></html>
        HTML;

        return new Response($html);
    }

    public function click(Request $request): Response
    {
        $agent =
            preg_match('/Mobile|Android/', (string) $request->headers->get('User-Agent')) === 1
                ? 'mobile'
                : 'desktop';
        $click = (new Clicks($this->platform, $this->store))->make($request->query->getString('ad'), [
            'device' => $agent,
            ...array_map(strval(...), $request->query->all()),
        ]);

        return new RedirectResponse($click['url'], 302, ['X-Click' => $click['id']]);
    }
}

<?php

declare(strict_types=1);

namespace Standins\Northquay;

use Standins\BadRequest;
use Standins\Store;
use Symfony\Component\HttpFoundation\RedirectResponse;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Response;

/** The search page where the ads are live: what a person clicks here is a real click. */
final readonly class LivePage
{
    private const SHOWN = 30;

    public function __construct(private Store $store) {}

    public function page(Request $request): Response
    {
        $words = trim($request->query->getString('q'));
        $ads = $this->store->rows(
            "select ad.id, ad.name, g.name as grp, g.keywords, c.name as campaign, c.type from nodes ad join nodes g on g.id = ad.parent join nodes c on c.id = g.parent
             where ad.level = 'ad' and (? = '' or ad.id = ? or ad.name like ? or c.name like ? or g.name like ?) order by ad.position limit ".self::SHOWN,
            [$words, $words, "%{$words}%", "%{$words}%", "%{$words}%"],
        );
        $e = static fn (string $s): string => htmlspecialchars($s, ENT_QUOTES);
        $items = '';
        foreach ($ads as $ad) {
            $keyword = json_decode((string) $ad['keywords'], true)[0] ?? ['text' => '', 'match' => ''];
            $href = '/click?'.http_build_query(['ad' => $ad['id'], 'term' => $keyword['text'], 'match' => $keyword['match']]);
            $items .= "<li><a href=\"{$e($href)}\" data-ad=\"{$e($ad['id'])}\">{$e($ad['name'])}</a><small>Ad · {$e($ad['campaign'])} › {$e($ad['grp'])} · “{$e($keyword['text'])}”</small></li>";
        }
        $html = <<<HTML
            <!doctype html><html lang="en"><meta charset="utf-8"><title>Northquay Search</title>
            <style>body{font:16px/1.5 Georgia,serif;max-width:44rem;margin:3rem auto;padding:0 1rem;color:#222}h1{font-size:1.4rem}li{margin:.7rem 0;list-style:none}ul{padding:0}a{color:#0b4f8a;font-size:1.1rem}small{display:block;color:#666}input{font:inherit;padding:.4rem .6rem;width:24rem}</style>
            <h1>Northquay Search</h1><form><input name="q" value="{$e($words)}" aria-label="Search" placeholder="ferry, freight, an ad's number"></form><ul>{$items}</ul></html>
            HTML;

        return new Response($html);
    }

    public function click(Request $request): Response
    {
        $ad = $this->store->rows("select * from nodes where id = ? and level = 'ad'", [$request->query->getString('ad')])[0] ?? throw new BadRequest('There is no such ad', 404);
        $path = [$ad];
        while ($path[0]['parent'] !== null) {
            array_unshift($path, $this->store->rows('select * from nodes where id = ?', [$path[0]['parent']])[0]);
        }
        $settings = json_decode((string) $this->store->rows('select settings from accounts where id = ?', [$ad['account']])[0]['settings'], true);
        $id = 'nq'.bin2hex(random_bytes(8));
        $isText = $path[1]['type'] === 'text';
        $facts = [
            'term' => $isText ? $request->query->getString('term') : '',
            'match' => $isText ? $request->query->getString('match') : '',
            'device' => $request->query->getString('device', preg_match('/Mobile|Android/', (string) $request->headers->get('User-Agent')) === 1 ? 'mobile' : 'desktop'),
            'net' => $request->query->getString('net', 'search'),
            'placement' => '',
            'product' => $path[1]['type'] === 'listing' ? 'sku-'.$ad['id'] : '',
            'click.id' => $id,
            'chance' => (string) random_int(100000, 999999),
        ];
        $url = (new Click($path, $facts, $settings['clickId'] ?? true))->url();
        $this->store->run('insert into clicks (id, account, ad, keyword, url, at) values (?, ?, ?, ?, ?, ?)', [$id, $ad['account'], $ad['id'], $facts['term'], $url, gmdate('c')]);

        return new RedirectResponse($url);
    }
}

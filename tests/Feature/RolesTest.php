<?php

namespace Tests\Feature;

use App\Http\Rules\OfClient;
use App\Models\Role;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Http;
use Illuminate\Support\Facades\Queue;
use Illuminate\Support\Facades\Validator;
use Tests\EveryCall;
use Tests\TestCase;

/** Every call, by every role, and every number that a call takes. */
final class RolesTest extends TestCase
{
    use EveryCall;

    /** Who may make a call that is more than looking; without an entry here the test fails. */
    private const MAY = [
        'PUT ' => ['owner'],
        'GET people' => ['owner'],
        'GET arrivals/{arrival}/visitor' => ['owner'],
        'DELETE arrivals/{arrival}/visitor' => ['owner'],
        'PUT people/{member}' => ['owner'],
        'DELETE people/{member}' => ['owner'],
        'POST invitations' => ['owner'],
        'DELETE invitations/{invitation}' => ['owner'],
        'PUT plan' => ['editor', 'owner'],
        'POST connections/{connection}/imports' => ['editor', 'owner'],
        'POST connections' => ['owner'],
        'DELETE connections/{connection}' => ['owner'],
        'PUT connections/{connection}/schedule' => ['editor', 'owner'],
        'POST accounts/{account}/outside/acceptance' => ['editor', 'owner'],
        'DELETE accounts/{account}/outside/acceptance' => ['editor', 'owner'],
        'POST accounts/{account}/outside/return' => ['editor', 'owner'],
        'POST intakes' => ['editor', 'owner'],
        'DELETE intakes/{intake}' => ['editor', 'owner'],
        'POST intakes/{intake}/files' => ['editor', 'owner'],
        'PUT intakes/{intake}/files/{file}' => ['editor', 'owner'],
        'DELETE intakes/{intake}/files/{file}' => ['editor', 'owner'],
        'PUT intakes/{intake}/look' => ['editor', 'owner'],
        'PUT intakes/{intake}/reading' => ['editor', 'owner'],
        'POST intakes/{intake}/import' => ['editor', 'owner'],
        'POST findings/{finding}/change' => ['editor', 'owner'],
        'POST changes' => ['editor', 'owner'],
        'POST changes/{change}/drop' => ['editor', 'owner'],
        'POST changes/{change}/again' => ['editor', 'owner'],
        'POST changes/{change}/approval' => ['reviewer', 'owner'],
        'POST changes/{change}/refusal' => ['reviewer', 'owner'],
        'POST changes/{change}/application' => ['editor', 'owner'],
        'POST changes/{change}/together/application' => ['editor', 'owner'],
        'POST changes/{change}/pause' => ['editor', 'owner'],
        'POST changes/{change}/stop' => ['editor', 'owner'],
        'POST changes/{change}/reversal' => ['editor', 'owner'],
        'GET changes/{change}/sheet' => ['editor', 'owner'],
        'POST changes/{change}/sheet' => ['editor', 'owner'],
        'POST changes/{change}/sheet/taken' => ['editor', 'owner'],
        'GET audit' => ['owner'],
        'PUT rules' => ['owner'],
        'POST sites' => ['owner'],
        'DELETE sites/{collector}' => ['owner'],
        'POST sites/{collector}/token' => ['owner'],
        'POST sites/{collector}/files' => ['editor', 'owner'],
        'GET sites/{collector}/files/{siteFile}' => ['editor', 'owner'],
        'PUT sites/{collector}/files/{siteFile}' => ['editor', 'owner'],
        'DELETE sites/{collector}/files/{siteFile}' => ['editor', 'owner'],
        'POST sites/{collector}/files/{siteFile}/reading' => ['editor', 'owner'],
        'PUT troubles/{trouble}/accepted' => ['editor', 'owner'],
        'DELETE troubles/{trouble}/accepted' => ['editor', 'owner'],
        'PUT counting' => ['editor', 'owner'],
        'POST feeds' => ['editor', 'owner'],
        'PUT feeds/{feed}' => ['editor', 'owner'],
        'DELETE feeds/{feed}' => ['editor', 'owner'],
        'POST feeds/{feed}/return' => ['editor', 'owner'],
        'POST feeds/{feed}/fetch' => ['editor', 'owner'],
        'PUT feeds/{feed}/file' => ['editor', 'owner'],
        'POST feeds/{feed}/copies/{copy}/acceptance' => ['editor', 'owner'],
        'POST feeds/{feed}/drafts' => ['editor', 'owner'],
        'POST feeds/{feed}/drafts/{draft}/application' => ['editor', 'owner'],
        'POST feeds/{feed}/drafts/{draft}/discard' => ['editor', 'owner'],
        'POST links' => ['editor', 'owner'],
        'PUT links/{link}' => ['editor', 'owner'],
        'DELETE links/{link}' => ['editor', 'owner'],
        'POST links/{link}/return' => ['editor', 'owner'],
        'POST links/hosts' => ['owner'],
        'DELETE links/hosts/{shortHost}' => ['owner'],
        'POST nodes/{node}/click' => ['editor', 'owner'],
        'POST filters' => ['editor', 'owner'],
        'DELETE filters/{filter}' => ['editor', 'owner'],
        'PUT agreements/{kind}' => ['editor', 'owner'],
        'POST agreements/words/changes' => ['editor', 'owner'],
        'POST sheet-maps' => ['editor', 'owner'],
        'DELETE sheet-maps/{sheetMap}' => ['editor', 'owner'],
        'POST trackers' => ['editor', 'owner'],
        'POST accounts/{account}/names/change' => ['editor', 'owner'],
        'PUT trackers/{tracker}' => ['editor', 'owner'],
        'PUT trackers/{tracker}/counts' => ['editor', 'owner'],
        'DELETE trackers/{tracker}' => ['editor', 'owner'],
        'PUT platforms' => ['editor', 'owner'],
        'DELETE platforms/{dialect}' => ['editor', 'owner'],
    ];

    /** Calls that are sent with a body and change nothing that is others': looking, trying, keeping for oneself. */
    private const LOOKS = [
        'POST plan/preview',
        'POST nodes/{node}/trace',
        'POST urls/senders',
        'POST urls/many',
        'POST urls/many/file',
        'POST numbers',
        'POST readings',
        'POST numbers/file',
        'POST changes/{change}/looks',
        'POST accounts/{account}/edits',
        'POST platforms/trial',
        'POST platforms/placeholders',
        'POST platforms/explanation',
        'POST platforms/consequences',
        'POST trackers/trial',
        'POST sheet-maps/suggestion',
        'POST plan/differences',
        'POST plan/consequences',
        'POST plan/file',
        'POST agreements/channels/trial',
        'POST agreements/channels/shift',
        'POST agreements/words/reach',
        'POST agreements/names/composition',
        'POST agreements/names/reading',
        'POST feeds/{feed}/trial',
        'POST links/look',
        'POST links/sheet',
        'POST results',
        'POST results/sessions',
        'POST results/file',
        'POST results/views',
        'DELETE results/views/{resultView}',
    ];

    /** Numbers in bodies and queries that name nothing; by: a person, of whom only changes for the client are found. */
    private const PLAIN = [
        'above',
        'by',
        'revision',
        'draft',
        'offset',
        'limit',
        'before',
        'everyMinutes',
        'over',
        'under',
        'after',
        'from',
        'to',
        'bytes',
        'everyHours',
        'quietFrom',
        'quietUntil',
        'headingRow',
        'days',
        'retention',
        'provisional',
        'table', // its place in a file
        'at', // a column's place
        'summed', // columns' places
    ];

    public function test_every_call_is_for_its_roles_alone(): void
    {
        $things = $this->things();
        Queue::fake();
        Http::fake();
        config(['limits.heavy' => 100_000, 'limits.person' => 100_000]);
        $asked = 0;
        foreach (self::calls() as [$method, $pattern]) {
            $call = self::named($method, $pattern);
            $looks = in_array($call, self::LOOKS, true) || ($method === 'GET' && ! isset(self::MAY[$call]));
            self::assertTrue($looks || isset(self::MAY[$call]), "who may {$call}? This test does not know.");
            foreach (Role::cases() as $role) {
                $status = $this->asked($role, $method, strtr($pattern, $things));
                $may = $looks || in_array($role->value, self::MAY[$call], true);
                self::assertSame($may, $status !== 403, "{$role->value}: {$call} is answered {$status}");
                self::assertNotContains($status, [401, 404, 405, 500], "{$role->value}: {$call}");
                $asked++;
            }
        }
        self::assertGreaterThan(200, $asked);
    }

    /** A body or a query that takes a number says that it is of the client, or this test knows that it names nothing. */
    public function test_every_number_that_is_taken_is_of_the_client(): void
    {
        $things = $this->things();
        Queue::fake();
        Http::fake();
        $rules = [];
        $call = '';
        Validator::resolver(static function ($translator, $data, $all, $messages, $names) use (&$rules, &$call) {
            foreach ($all as $key => $some) {
                // a call is checked from the outside in, and what was asked of the database is asked once
                $told = is_string($some) ? explode('|', $some) : (array) $some;
                $rules["{$call} {$key}"] = [...$rules["{$call} {$key}"] ?? [], ...$told];
            }

            return new \Illuminate\Validation\Validator($translator, $data, $all, $messages, $names);
        });
        foreach (self::calls() as [$method, $pattern]) {
            $call = self::named($method, $pattern);
            $this->asked(Role::Owner, $method, strtr($pattern, $things));
        }
        $checked = 0;
        foreach ($rules as $key => $some) {
            $named = (string) preg_replace('/\.\*$/', '', $key);
            $field = substr($named, (int) strrpos($named, '.') ?: (int) strrpos($named, ' '));
            $isNumber = in_array('integer', $some, true);
            $ofClient = array_filter($some, static fn ($rule): bool => $rule instanceof OfClient) !== [];
            // the numbers in a list are looked at where the list is
            $list = $rules[(string) preg_replace('/\.\*(\.\w+)?$/', '', $key)] ?? [];
            $listed = array_filter($list, static fn ($rule): bool => $rule instanceof OfClient) !== [];
            if ($isNumber && ! $ofClient && ! $listed) {
                self::assertContains(trim($field, '. '), self::PLAIN, "{$key} takes a number of anybody’s");
            }
            $checked += (int) ($ofClient || $listed);
        }
        self::assertGreaterThan(12, $checked);
    }

    /** Asks, and takes back whatever became of it. */
    private function asked(Role $role, string $method, string $path): int
    {
        DB::beginTransaction();
        try {
            return $this->actingAs($this->member($role, $this->client))
                ->json($method, $path)
                ->getStatusCode(); // of files too
        } finally {
            DB::rollBack();
            $this->app['auth']->forgetGuards();
        }
    }

    private static function named(string $method, string $pattern): string
    {
        return $method.' '.(explode('{client}/', $pattern)[1] ?? '');
    }
}

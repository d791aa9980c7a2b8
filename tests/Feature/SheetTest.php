<?php

namespace Tests\Feature;

use App\Models\Change;
use App\Models\ChangeStatus;
use App\Models\Connection;
use App\Models\Text;
use App\Models\WriteState;
use Illuminate\Support\Facades\Http;
use Tests\SheetMapOf;
use Tests\TestCase;

/** A platform that takes texts only in sheets: only what changes goes out, and the result comes back in. */
final class SheetTest extends TestCase
{
    private Change $change;

    private int $map;

    protected function setUp(): void
    {
        parent::setUp();
        $account = $this->imported('OG-3', 'oldgate-portal', 'gate-4402');
        Connection::query()->update(['writes_by' => 'sheet']);
        $this->planned();
        $this->change = $this->inLine($account);
        $this->map = $this->api('POST', '/sheet-maps', SheetMapOf::ads('oldgate-portal'))
            ->assertStatus(201)
            ->json('id');
    }

    private function due(): string
    {
        $this->api('POST', "/changes/{$this->change->id}/application")->assertStatus(202);
        self::assertSame(
            ChangeStatus::HandedOut,
            $this->change->refresh()->status,
            (string) $this->change->problem,
        );

        return (string) $this->api('GET', "/changes/{$this->change->id}/sheet?map={$this->map}&as=csv")
            ->assertOk()
            ->streamedContent();
    }

    /** The portal's desk takes the sheet and gives it back with the outcomes. */
    private function desk(string $sheet): string
    {
        return Http::withBody($sheet, 'text/csv')
            ->post('http://oldgate.localhost:'.env('STANDINS_PORT').'/desk')
            ->throw()
            ->body();
    }

    private function back(string $sheet): \Illuminate\Testing\TestResponse
    {
        return $this->api('POST', "/changes/{$this->change->id}/sheet", [
            'map' => $this->map,
            'name' => 'outcome.csv',
            'content' => base64_encode($sheet),
        ]);
    }

    public function test_the_trial_and_the_rest_go_out_come_back_and_are_read_back(): void
    {
        $writes = $this->change->writes()->count();
        $trial = $this->due();
        self::assertSame("\"Advert no.\",Link\r\n", strtok($trial, "\n")."\n", 'only what changes');
        $lines = count(array_filter(explode("\n", $trial)));
        $this->back($this->desk($trial))
            ->assertOk()
            ->assertJson(['taken' => $lines - 1, 'refused' => 0]);
        self::assertSame(
            [ChangeStatus::Tried, true],
            [$this->change->refresh()->status, $this->change->trial['ok'] ?? null],
            json_encode($this->change->trial),
        );

        $rest = $this->due();
        $this->back($this->desk($rest))->assertOk();
        self::assertSame(ChangeStatus::Done, $this->change->refresh()->status, (string) $this->change->problem);
        self::assertSame($writes, $this->change->writes()->where('state', WriteState::Verified)->count());
        self::assertSame(
            $this->change->writes()->where('kind', 'landing')->orderByDesc('position')->value('after'),
            Text::query()
                ->where('node_id', $this->change->writes()->orderByDesc('position')->value('node_id'))
                ->whereNull('until')
                ->value('text'),
        );
    }

    public function test_what_the_portal_refuses_fails_alone_and_says_why(): void
    {
        $sheet = $this->due();
        $outcome = preg_replace('/,Done,(""|)\r?$/m', ',Refused,"too long"', $this->desk($sheet), 1);
        $this->back((string) $outcome)->assertOk()->assertJsonPath('refused', 1);
        self::assertStringContainsString(
            'too long',
            (string) $this->change->writes()->where('state', WriteState::Failed)->value('problem'),
        );
    }

    public function test_bad_sheets_are_explained(): void
    {
        $this->due();
        $this->back("No,State\r\n1,Done\r\n")
            ->assertStatus(422)
            ->assertJsonPath(
                'message',
                'Outcome.csv has no headings of the sheets that this goes out in: Advert no., Title, Link.',
            );
        $this->back('')->assertStatus(422);
        $this->back("Advert no.,Link,Outcome\r\n1,x,Done\r\n")
            ->assertOk()
            ->assertJson([
                'taken' => 0,
                'unknown' => 1,
                'problems' => ['1 is not waiting for an answer; its row was left out.'],
            ]);
    }

    public function test_without_a_map_it_goes_out_plain(): void
    {
        $this->due();
        $sheet = (string) $this->api('GET', "/changes/{$this->change->id}/sheet?as=csv")->assertOk()->streamedContent();
        self::assertSame('Level,Number,"Landing URL"', strtok($sheet, "\r\n"));
        $this->api('POST', "/changes/{$this->change->id}/sheet", [
            'name' => 'plain.csv',
            'content' => base64_encode($sheet),
        ])
            ->assertOk()
            ->assertJson(['refused' => 0, 'unknown' => 0]);
    }

    public function test_what_a_map_has_no_column_for_is_said(): void
    {
        $this->due();
        $names = ['title' => 'Names'] + SheetMapOf::ads('oldgate-portal');
        unset($names['tables'][0]['columns'][2]);
        $map = $this->api('POST', '/sheet-maps', $names)->json('id');
        $this->api('GET', "/changes/{$this->change->id}/sheet?map={$map}&as=csv")
            ->assertStatus(422)
            ->assertJsonPath('message', 'There is no column for the landing at Ad level.');
    }

    public function test_maps_are_handed_on_as_files(): void
    {
        $file = $this->api('GET', "/sheet-maps/{$this->map}")->assertOk();
        self::assertSame('attachment; filename=map-Desk.json', $file->headers->get('Content-Disposition'));
        self::assertEquals(SheetMapOf::ads('oldgate-portal'), $file->json());
        $this->api('POST', '/sheet-maps', ['title' => 'Mine'] + $file->json())->assertStatus(201);
        self::assertSame(['Mine', 'Desk'], $this->api('GET', '/sheet-maps')->json('items.*.title'));
        self::assertSame(
            ['Advert no.', 'Title', 'Link'],
            $this->api('GET', '/sheet-maps')->json('items.1.tables.0.headings'),
        );
        $this->api('DELETE', "/sheet-maps/{$this->map}")->assertStatus(204);
        self::assertSame(['Mine'], $this->api('GET', '/sheet-maps')->json('items.*.title'));
    }

    public function test_a_map_that_can_t_be_used_is_not_kept(): void
    {
        $bad = SheetMapOf::ads('oldgate-portal');
        $bad['tables'][0]['columns'][2]['means'] = 'slot.footer';
        $this->api('POST', '/sheet-maps', $bad)
            ->assertStatus(422)
            ->assertJsonPath('message', fn (string $m): bool => str_contains($m, 'slot.footer'));
        $this->api('POST', '/sheet-maps', ['dialect' => 'nowhere'] + SheetMapOf::ads('oldgate-portal'))
            ->assertStatus(422)
            ->assertJsonPath('message', 'There is no platform "nowhere".');
        self::assertCount(1, $this->api('GET', '/sheet-maps')->json('items'));
    }
}

<?php

namespace Tests\Feature;

use App\Mail\Invited;
use App\Models\Client;
use App\Models\Invitation;
use App\Models\Membership;
use App\Models\Role;
use App\Models\User;
use App\SignIn\Invitations;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\Mail;
use Illuminate\Testing\TestResponse;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\Contract;
use Tests\TestCase;

/** Clients and people of one's own: the first owner, who is invited, who becomes what, and who leaves. */
final class PeopleTest extends TestCase
{
    private User $owner;

    protected function setUp(): void
    {
        parent::setUp();
        $this->owner = $this->member(Role::Owner, $this->client);
    }

    /** @param array<string, mixed> $body */
    private function door(string $path, array $body): TestResponse
    {
        $this->app['auth']->forgetGuards();

        return $this->postJson("/api/v1/invitations/{$path}", $body, ['Origin' => config('app.url')]);
    }

    /** @param array<string, mixed> $more */
    private function accepts(string $token, array $more = []): TestResponse
    {
        return $this->door('accept', $more + [
            'token' => $token,
            'name' => 'Berit Sund',
            'email' => 'Berit@Skerrow.example',
            'password' => 'a long enough one',
        ]);
    }

    private function invited(string $email = 'berit@skerrow.example', string $role = 'editor'): string
    {
        $answer = $this->api('POST', '/invitations', ['email' => $email, 'role' => $role], $this->owner);
        Contract::holds($answer, 'post', '/clients/{client}/invitations');

        return explode('#', $answer->json('link'))[1];
    }

    public function test_the_first_owner_comes_in_by_a_link_that_is_good_once(): void
    {
        Membership::query()->delete();
        User::query()->delete();
        Artisan::call('people:begin');
        $old = explode('#', trim(Artisan::output()))[1];
        Artisan::call('people:begin');
        $token = explode('#', trim(Artisan::output()))[1];
        $this->door('look', ['token' => $old])->assertStatus(404);
        $look = $this->door('look', ['token' => $token])->assertOk();
        Contract::holds($look, 'post', '/invitations/look');
        self::assertNull($look->json('client'));
        self::assertSame(0, Invitation::query()->where('digest', $token)->count(), 'only a digest is kept');

        Contract::holds($this->accepts($token)->assertStatus(201), 'post', '/invitations/accept');
        $this->accepts($token, ['email' => 'other@x.example'])->assertStatus(404);
        $first = User::query()->sole();
        self::assertSame('berit@skerrow.example', $first->email);
        Artisan::call('people:begin');
        self::assertSame('', Artisan::output(), 'somebody is here');

        $made = $this->actingAs($first)->postJson('/api/v1/clients', [
            'name' => 'Skerrow – Ærlig Øl',
            'timeZone' => 'Europe/Oslo',
            'currency' => 'NOK',
        ]);
        Contract::holds($made->assertStatus(201), 'post', '/clients');
        self::assertSame('skerrow-aerlig-ol', $made->json('slug'));
        self::assertSame(Role::Owner, $first->roleAt(Client::query()->findOrFail($made->json('id'))));
    }

    public function test_who_is_invited_comes_in_with_the_role_that_was_given(): void
    {
        Mail::fake();
        $token = $this->invited();
        Mail::assertSent(Invited::class, static fn (Invited $m): bool => $m->hasTo('berit@skerrow.example'));
        self::assertSame(
            ['Velmar Ferries', 'editor', 'berit@skerrow.example'],
            array_values(array_slice($this->door('look', ['token' => $token])->json(), 0, 3)),
        );
        $this->accepts($token, ['email' => 'else@x.example'])
            ->assertStatus(422)
            ->assertJsonPath('message', 'This link is for berit@skerrow.example.');
        $this->accepts($token, ['password' => 'short'])->assertStatus(422);
        $this->accepts($token)->assertStatus(201);
        $berit = User::query()->where('email', 'berit@skerrow.example')->sole();
        self::assertSame(Role::Editor, $berit->roleAt($this->client));
        self::assertFalse($berit->mayFound());
        $this->actingAs($berit)
            ->postJson('/api/v1/clients', ['name' => 'x', 'timeZone' => 'UTC', 'currency' => 'EUR'])
            ->assertStatus(403);
    }

    public function test_who_is_here_already_joins_and_nobody_else_with_that_link(): void
    {
        $other = Client::factory()->create(['slug' => 'elsewhere']);
        $known = $this->member(Role::Viewer, $other);
        $token = $this->invited($known->email, 'reviewer');
        $this->accepts($token, ['email' => $known->email])
            ->assertStatus(409)
            ->assertJsonPath('message', fn (string $m): bool => str_contains($m, 'Sign in with it'));
        $join = fn (User $as): TestResponse => $this->actingAs($as)->postJson(
            '/api/v1/invitations/join',
            ['token' => $token],
            ['Origin' => config('app.url')],
        );
        $join($this->editor)->assertStatus(422);
        $joined = $join($known);
        Contract::holds($joined->assertOk(), 'post', '/invitations/join');
        self::assertSame('velmar', $joined->json('slug'));
        self::assertSame(Role::Reviewer, $known->refresh()->roleAt($this->client));
        $join($known)->assertStatus(404);
    }

    public function test_an_invitation_that_is_taken_back_or_made_anew_is_worn(): void
    {
        $first = $this->invited();
        $second = $this->invited();
        $this->door('look', ['token' => $first])->assertStatus(404);
        $people = $this->api('GET', '/people', [], $this->owner);
        Contract::holds($people, 'get', '/clients/{client}/people');
        self::assertSame(['berit@skerrow.example'], array_column($people->json('invited'), 'email'));
        $back = $this->api('DELETE', "/invitations/{$people->json('invited.0.id')}", [], $this->owner);
        Contract::holds($back, 'delete', '/clients/{client}/invitations/{invitation}');
        $this->accepts($second)->assertStatus(404);
        self::assertSame(0, User::query()->where('email', 'berit@skerrow.example')->count());
    }

    public function test_roles_change_and_people_leave_but_never_the_last_owner(): void
    {
        $changed = $this->api('PUT', "/people/{$this->editor->id}", ['role' => 'viewer'], $this->owner);
        Contract::holds($changed, 'put', '/clients/{client}/people/{member}');
        self::assertSame(Role::Viewer, $this->editor->refresh()->roleAt($this->client));
        foreach (
            [
                ['PUT', ['role' => 'editor']],
                ['DELETE', []],
            ] as [$method, $body]
        ) {
            $this->api($method, "/people/{$this->owner->id}", $body, $this->owner)
                ->assertStatus(422)
                ->assertJsonPath('message', fn (string $m): bool => str_contains($m, 'is the only owner'));
        }
        $this->api('PUT', "/people/{$this->editor->id}", ['role' => 'owner'], $this->owner)->assertOk();
        $gone = $this->api('DELETE', "/people/{$this->owner->id}", [], $this->owner);
        Contract::holds($gone, 'delete', '/clients/{client}/people/{member}');
        self::assertSame([$this->editor->id], array_column($gone->json('members'), 'id'));
        $this->api('GET', '/people', [], $this->owner->refresh())->assertStatus(404);
    }

    public function test_a_stranger_is_no_member_to_be_changed(): void
    {
        $stranger = $this->member(Role::Editor, Client::factory()->create());

        $this->api('PUT', "/people/{$stranger->id}", ['role' => 'owner'], $this->owner)->assertStatus(404);
        self::assertNull($stranger->roleAt($this->client));
    }

    public function test_what_is_told_of_a_client_is_changed_by_owners(): void
    {
        $body = ['name' => 'Velmar Lines', 'timeZone' => 'Atlantic/Faroe', 'currency' => 'DKK'];
        $changed = $this->api('PUT', '/', $body, $this->owner);
        Contract::holds($changed, 'put', '/clients/{client}');
        Contract::holds($this->api('GET', '/'), 'get', '/clients/{client}');
        self::assertSame($body, array_intersect_key($changed->json(), $body));
        self::assertSame('velmar', $changed->json('slug'), 'addresses stay');
    }

    /** @return iterable<string, array{array<string, string>, string}> */
    public static function badClients(): iterable
    {
        $good = ['name' => 'x', 'timeZone' => 'UTC', 'currency' => 'EUR'];
        yield 'no name' => [['name' => ''] + $good, 'name'];
        yield 'no such time zone' => [['timeZone' => 'Europe/Skerrow'] + $good, 'There is no such time zone'];
        yield 'no such currency' => [['currency' => 'QQQ'] + $good, 'A currency is wanted'];
        yield 'a currency in words' => [['currency' => 'euro'] + $good, 'A currency is wanted'];
    }

    /** @param array<string, string> $body */
    #[DataProvider('badClients')]
    public function test_a_client_that_can_t_be_says_why(array $body, string $says): void
    {
        $answer = $this->actingAs($this->owner)->postJson('/api/v1/clients', $body)->assertStatus(422);
        self::assertStringContainsString($says, (string) $answer->json('message'));
    }

    public function test_two_clients_of_one_name_have_their_own_addresses(): void
    {
        $make = fn (string $name): string => $this->actingAs($this->owner)
            ->postJson('/api/v1/clients', ['name' => $name, 'timeZone' => 'UTC', 'currency' => 'EUR'])
            ->json('slug');

        self::assertSame(['skerrow', 'skerrow-2'], [$make('Skerrow'), $make('Skerrow!')]);
        self::assertSame(['client', 'join-2'], [$make('日'), $make('Join')]);
    }

    public function test_a_link_for_nobody_in_particular_is_used_once(): void
    {
        [, $link] = app(Invitations::class)->make($this->client, $this->owner, null, Role::Viewer);
        $token = explode('#', $link)[1];
        $this->accepts($token, ['email' => 'one@x.example'])->assertStatus(201);
        $this->accepts($token, ['email' => 'two@x.example'])->assertStatus(404);
        self::assertSame(0, User::query()->where('email', 'two@x.example')->count());
    }
}

<?php

namespace Tests;

use App\Http\Middleware\FreshSession;
use App\Models\Role;
use App\SignIn\Totp;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Password;
use Illuminate\Testing\TestResponse;

/** The calls about people and about oneself, held against the contract. */
trait ContractOfPeople
{
    private function contractOfPeople(): void
    {
        $owner = $this->member(Role::Owner, $this->client);
        $own = fn (string $method, string $path, array $body = []) => $this->api($method, $path, $body, $owner);
        Contract::holds($own('GET', '/'), 'get', self::C);
        $data = ['name' => 'Velmar Ferries', 'timeZone' => 'UTC', 'currency' => 'EUR'];
        Contract::holds($own('PUT', '/', $data), 'put', self::C);
        Contract::holds($this->actingAs($owner)->postJson('/api/v1/clients', $data), 'post', '/clients');
        Contract::holds($own('GET', '/people'), 'get', self::C.'/people');
        $member = $this->member(Role::Viewer, $this->client);
        $at = self::C.'/people/{member}';
        Contract::holds($own('PUT', "/people/{$member->id}", ['role' => 'editor']), 'put', $at);
        Contract::holds($own('DELETE', "/people/{$member->id}"), 'delete', $at);
        $invited = static fn (string $email): array => ['email' => $email, 'role' => 'viewer'];
        $invitation = $own('POST', '/invitations', $invited('a@x.example'));
        Contract::holds($invitation, 'post', self::C.'/invitations');
        $at = self::C.'/invitations/{invitation}';
        Contract::holds($own('DELETE', "/invitations/{$invitation->json('id')}"), 'delete', $at);
        $token = static fn (TestResponse $made): array => ['token' => explode('#', $made->json('link'))[1]];
        $join = $token($own('POST', '/invitations', $invited($member->email)));
        $door = fn (string $path, array $body): TestResponse => $this->postJson(
            "/api/v1/invitations/{$path}",
            $body,
            ['Origin' => config('app.url')],
        );
        $this->app['auth']->forgetGuards();
        $this->flushSession(); // another person sits down
        Contract::holds($door('look', $join), 'post', '/invitations/look');
        $this->actingAs($member);
        Contract::holds($door('join', $join), 'post', '/invitations/join');
        $new = ['name' => 'B', 'email' => 'b@x.example', 'password' => 'a long enough one'];
        $accept = $token($own('POST', '/invitations', $invited('b@x.example'))) + $new;
        Contract::holds($door('accept', $accept), 'post', '/invitations/accept');
    }

    /** @param array<string, string> $here */
    private function contractOfThePerson(array $here): void
    {
        $this->app['auth']->forgetGuards(); // who was signed in before is not who asks now
        $this->actingAs($this->editor)->withSession([FreshSession::SINCE => now()->timestamp]);
        Contract::holds($this->getJson('/api/v1/person', $here), 'get', '/person');
        $begun = $this->postJson('/api/v1/person/second-factor', [], $here);
        Contract::holds($begun, 'post', '/person/second-factor');
        $secret = self::fromBase32($begun->json('secret'));
        $code = static fn (): string => (new Totp($secret))->code(Totp::step((int) now()->timestamp));
        Contract::holds(
            $this->putJson(
                '/api/v1/person/second-factor',
                ['code' => $code(), 'password' => 'tide-table'],
                $here,
            ),
            'put',
            '/person/second-factor',
        );
        $this->travel(1)->minutes(); // no code is taken twice
        $this->app['auth']->forgetGuards();
        $this->flushSession();
        $this->postJson(
            '/api/v1/session',
            ['email' => $this->editor->email, 'password' => 'tide-table'],
            $here,
        )->assertExactJson(['needs' => 'code']);
        Contract::holds(
            $this->postJson('/api/v1/session/code', ['code' => $code()], $here),
            'post',
            '/session/code',
        );
        Contract::holds(
            $this->deleteJson(
                '/api/v1/person/second-factor',
                ['password' => 'tide-table'],
                $here,
            )->assertNoContent(),
            'delete',
            '/person/second-factor',
        );
        Contract::holds(
            $this->deleteJson('/api/v1/person/sessions', [], $here)->assertOk(),
            'delete',
            '/person/sessions',
        );
        DB::table('sessions')->insert([
            'id' => 'elsewhere',
            'user_id' => $this->editor->id,
            'payload' => '',
            'last_activity' => time(),
        ]);
        $elsewhere = substr(hash('sha256', 'elsewhere'), 0, 32);
        Contract::holds(
            $this->deleteJson("/api/v1/person/sessions/{$elsewhere}", [], $here),
            'delete',
            '/person/sessions/{session}',
        );
        Contract::holds(
            $this->putJson(
                '/api/v1/person/password',
                ['current' => 'tide-table', 'password' => 'another tide table'],
                $here,
            )->assertOk(),
            'put',
            '/person/password',
        );
        Contract::holds(
            $this->postJson('/api/v1/password/forgotten', ['email' => $this->editor->email], $here),
            'post',
            '/password/forgotten',
        );
        $token = Password::broker()->createToken($this->editor);
        Contract::holds(
            $this->postJson(
                '/api/v1/password/reset',
                ['email' => $this->editor->email, 'token' => $token, 'password' => 'a third tide table'],
                $here,
            ),
            'post',
            '/password/reset',
        );
    }
}

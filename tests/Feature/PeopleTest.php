<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Accounts\Access;
use App\Accounts\Role;
use App\Models\Build;
use App\Models\Invitation;
use App\Models\ShareLink;
use App\Models\User;
use App\Models\Workshop;
use Illuminate\Testing\TestResponse;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\Support\Schemas;

/** Several people: how they come in, what each may, and how they leave. */
final class PeopleTest extends FeatureTestCase
{
    private User $owner;

    private Workshop $workshop;

    protected function setUp(): void
    {
        parent::setUp();
        $this->owner = $this->stranger();
        $this->workshop = $this->owner->workshops()->firstOrFail();
        $this->as($this->owner);
    }

    private function begin(string $name): Build
    {
        $id = $this->postJson('/api/builds', [
            'workshop' => $this->workshop->id,
            'name' => $name,
            'kind' => 'router',
            'currency' => 'GBP',
        ])
            ->assertCreated()
            ->json('id');

        return Build::query()->findOrFail($id);
    }

    /**
     * @param  array<string, mixed>  $with
     */
    private function invite(string $role, array $with = []): string
    {
        $path = $this->postJson(
            "/api/workshops/{$this->workshop->id}/invitations",
            $with + ['role' => $role, 'days' => 7],
        )
            ->assertCreated()
            ->json('path');

        return '/api'.$path;
    }

    /** @return TestResponse<\Symfony\Component\HttpFoundation\Response> */
    private function come(string $link, string $name): TestResponse
    {
        $this->flushSession();
        $this->app->make('auth')->forgetGuards();

        return $this->postJson($link, [
            'name' => $name,
            'email' => strtolower($name).'@new.example',
            'password' => 'four small brown eggs',
        ]);
    }

    private function named(string $name): User
    {
        return User::query()->where('name', $name)->firstOrFail();
    }

    public function test_an_invitation_makes_an_account_of_the_workshop_and_is_good_once(): void
    {
        $build = $this->begin('Shared router');
        $link = $this->invite('builder', ['for' => 'Ash, from the club']);
        $this->getJson("/api/workshops/{$this->workshop->id}/people")
            ->assertJsonPath('invitations.0.for', 'Ash, from the club')
            ->assertJsonPath('invitations.0.role', 'builder');
        $this->flushSession();
        $this->app->make('auth')->forgetGuards();
        $seen = $this->getJson($link)->assertOk()->assertJsonPath('by', 'Wren Holm')->assertJsonPath('me', null);
        self::assertShape('Invited', $seen);
        $this->postJson($link, ['name' => 'Ash', 'email' => 'ash@new.example', 'password' => 'short'])
            ->assertStatus(422)
            ->assertJsonPath('errors.0.pointer', '/password');

        $this->come($link, 'Ash')->assertCreated();
        $this->as($this->named('Ash'));
        $this->edit($build, [
            ['section' => 'needs', 'create' => ['ref' => 'a', 'role' => 'A fan', 'family' => 'fan']],
        ])->assertOk();
        $this->deleteJson("/api/builds/{$build->id}")->assertForbidden();
        $mine = $this->begin('Ash’s own');
        $this->deleteJson("/api/builds/{$mine->id}")->assertNoContent();
        $this->come($link, 'Late')
            ->assertStatus(410)
            ->assertJsonPath('detail', 'This invitation was used. Ask for another one.');
        $this->as($this->owner);
        $this->getJson("/api/builds/{$build->id}/edits")->assertJsonPath('0.by', 'Ash');
    }

    public function test_a_reader_reads_all_and_changes_nothing_until_a_build_says_otherwise(): void
    {
        [$one, $other] = [$this->begin('One'), $this->begin('Other')];
        $this->come($this->invite('reader'), 'Rue')->assertCreated();
        $rue = $this->named('Rue');
        $change = [['section' => 'needs', 'create' => ['ref' => 'a', 'role' => 'A fan', 'family' => 'fan']]];
        $this->as($rue);
        $this->getJson("/api/builds/{$one->id}")
            ->assertOk()
            ->assertJsonPath('role', 'reader');
        $said = $this->edit($one, $change)->assertForbidden()->json('detail');
        self::assertStringContainsString('You may read this, not change it.', $said);
        $this->getJson("/api/workshops/{$this->workshop->id}/people")
            ->assertJsonPath('people.1.email', null)
            ->assertJsonPath('invitations', []);
        $this->postJson('/api/builds', [
            'workshop' => $this->workshop->id,
            'name' => 'x',
            'kind' => 'x',
            'currency' => 'GBP',
        ])->assertForbidden();
        $this->postJson("/api/builds/{$one->id}/variants", ['name' => 'x'])->assertForbidden();

        $this->as($this->owner);
        $this->putJson("/api/builds/{$one->id}/people/{$rue->id}", ['role' => 'builder'])->assertOk();
        self::assertShape('BuildPeople', $this->getJson("/api/builds/{$one->id}/people"));
        $this->as($rue);
        $this->edit($one, $change)->assertOk();
        $this->edit($other, $change)->assertForbidden();
        $this->as($this->owner);
        $this->putJson("/api/builds/{$one->id}/people/{$rue->id}", ['role' => null])->assertOk();
        $this->as($rue);
        $this->getJson("/api/builds/{$one->id}")->assertJsonPath('role', 'reader');
    }

    public function test_a_guest_of_one_build_finds_nothing_else_of_the_workshop(): void
    {
        [$one, $other] = [$this->begin('One'), $this->begin('Other')];
        $this->come($this->invite('builder', ['build' => $one->id]), 'Gil')
            ->assertCreated()
            ->assertJsonPath('build', $one->id);
        $gil = $this->named('Gil');
        $this->as($gil);
        $list = $this->getJson('/api/builds')->assertOk();
        self::assertSame([['One'], null], [array_column($list->json('0.builds'), 'name'), $list->json('0.role')]);
        $this->getJson("/api/builds/{$other->id}")->assertNotFound();
        $this->getJson("/api/builds/{$one->id}/stock")
            ->assertOk()
            ->assertExactJson([]);
        $this->getJson("/api/workshops/{$this->workshop->id}/people")->assertNotFound();
        $this->postJson("/api/builds/{$one->id}/variants", ['name' => 'Away'])->assertNotFound();
        $this->as($this->owner);
        $this->getJson("/api/workshops/{$this->workshop->id}/people")->assertJsonPath('guests.0.name', 'Gil');
        $this->deleteJson("/api/workshops/{$this->workshop->id}/people/{$gil->id}")->assertOk();
        $this->as($gil);
        $this->getJson("/api/builds/{$one->id}")->assertNotFound();
    }

    public function test_a_workshop_keeps_an_owner_and_who_leaves_is_out(): void
    {
        $build = $this->begin('One');
        $at = "/api/workshops/{$this->workshop->id}/people";
        $this->deleteJson("{$at}/me")
            ->assertStatus(409)
            ->assertJsonPath('detail', 'A workshop has at least one owner. Make somebody else an owner first.');
        $this->putJson("{$at}/{$this->owner->id}", ['role' => 'reader'])->assertStatus(409);
        $this->come($this->invite('builder'), 'Ash')->assertCreated();
        $this->as($this->owner);
        $this->putJson("{$at}/{$this->named('Ash')->id}", ['role' => 'chief'])->assertStatus(422);
        $this->putJson("{$at}/{$this->named('Ash')->id}", ['role' => 'owner'])->assertOk();
        $this->deleteJson("{$at}/me")->assertOk();
        $this->getJson("/api/builds/{$build->id}")->assertNotFound();
        $this->as($this->named('Ash'));
        $this->getJson($at)->assertOk()->assertJsonCount(1, 'people');
        $this->postJson('/api/workshops', ['name' => 'A second one'])->assertCreated();
        $this->getJson('/api/builds')->assertJsonCount(2);
    }

    /** Nobody who is in already loses by an invitation, and one that ran out or was taken back says so. */
    public function test_invitations_run_out_and_take_nothing_away(): void
    {
        $link = $this->invite('reader');
        $this->postJson($link)->assertCreated();
        self::assertSame(Role::Owner, Access::ofWorkshop($this->owner, $this->workshop->id));
        $old = $this->invite('reader', ['days' => 3]);
        $taken = $this->invite('builder');
        $id = $this->getJson("/api/workshops/{$this->workshop->id}/people")->json('invitations.1.id');
        $this->deleteJson("/api/invitations/{$id}")->assertNoContent();
        $this->come($taken, 'Ash')->assertNotFound();
        $this->travel(4)->days();
        $said = $this->come($old, 'Ash')->assertStatus(410)->json('detail');
        self::assertStringContainsString('Ask for another one.', $said);
        self::assertNull(User::query()->where('name', 'Ash')->first());
    }

    public function test_a_link_shows_one_build_until_it_is_revoked_or_runs_out(): void
    {
        [$one, $other] = [$this->begin('One'), $this->begin('Other')];
        $this->postJson("/api/builds/{$one->id}/links", ['label' => 'For the club', 'days' => 400])->assertStatus(422);
        $open = fn (): string => '/api'.
            $this->postJson("/api/builds/{$one->id}/links", ['label' => 'For the club', 'days' => 5])
                ->assertCreated()
                ->json('path');
        [$link, $second] = [$open(), $open()];
        $visit = function (string $link): TestResponse {
            $this->flushSession();
            $this->app->make('auth')->forgetGuards();

            return $this->postJson($link);
        };
        $visit($link)->assertOk()->assertJsonPath('build', $one->id);
        $this->getJson('/api/session')->assertJsonPath('visits', $one->id)->assertJsonPath('user', null);
        $this->getJson("/api/builds/{$one->id}")
            ->assertOk()
            ->assertJsonPath('role', 'visitor');
        $this->getJson('/api/builds')->assertJsonPath('0.builds.0.name', 'One')->assertJsonCount(1, '0.builds');
        $this->getJson("/api/builds/{$other->id}")->assertNotFound();
        $this->edit($one, [
            ['section' => 'needs', 'create' => ['ref' => 'a', 'role' => 'A', 'family' => 'fan']],
        ])->assertForbidden();
        $this->getJson("/api/builds/{$one->id}/edits")->assertForbidden();
        ShareLink::query()->oldest('id')->firstOrFail()->delete();
        $this->getJson("/api/builds/{$one->id}")->assertUnauthorized();
        $visit($link)->assertNotFound();
        $visit($second)->assertOk();
        $this->travel(6)->days();
        $this->getJson("/api/builds/{$one->id}")->assertUnauthorized();
        $visit($second)->assertStatus(410);
    }

    public function test_who_is_here_is_seen_with_what_they_changed_and_who_left_is_not(): void
    {
        $build = $this->begin('One');
        $this->come($this->invite('builder'), 'Ash')->assertCreated();
        $pulse = fn (string $view, int $seen) => $this->postJson("/api/builds/{$build->id}/pulse", [
            'view' => $view,
            'seen' => $seen,
        ])->assertOk();
        $this->as($this->named('Ash'));
        $pulse('wiring', 1)->assertJsonPath('people', []);
        $this->edit($build, [
            ['section' => 'needs', 'create' => ['ref' => 'a', 'role' => 'A fan', 'family' => 'fan']],
        ])->assertOk();
        $this->as($this->owner);
        $seen = $pulse('fit', 1)
            ->assertJsonPath('people', [['name' => 'Ash', 'view' => 'wiring']])
            ->assertJsonPath('revision', 2)
            ->assertJsonPath('changes.0.by', 'Ash')
            ->assertJsonPath('changes.0.mine', false);
        self::assertShape('Pulse', $seen);
        $pulse('fit', 2)->assertJsonPath('changes', []);
        $this->travel(20)->seconds();
        $pulse('fit', 2)->assertJsonPath('people', []);
    }

    /**
     * @return iterable<string, array{string, string|null, string, bool}>
     */
    public static function words(): iterable
    {
        yield 'a build raises a reader' => ['reader', 'builder', 'builder', true];
        yield 'a build lowers a builder' => ['builder', 'reader', 'builder', false];
        yield 'nothing lowers an owner of the workshop' => ['owner', 'reader', 'owner', true];
        yield 'a build makes an owner of its own' => ['builder', 'owner', 'owner', true];
        yield 'without a word it is the workshop' => ['reader', null, 'reader', true];
        yield 'and no more' => ['reader', null, 'builder', false];
    }

    #[DataProvider('words')]
    public function test_the_word_of_a_build_comes_before_that_of_the_workshop(
        string $general,
        ?string $own,
        string $least,
        bool $may,
    ): void {
        $build = $this->begin('One');
        $user = User::query()->create([
            'name' => 'Ash',
            'email' => 'ash@new.example',
            'password' => 'four small brown eggs',
        ]);
        $this->workshop->members()->attach($user, ['role' => $general]);
        if ($own !== null) {
            \Illuminate\Support\Facades\DB::table('build_people')->insert([
                'build_id' => $build->id,
                'user_id' => $user->id,
                'role' => $own,
            ]);
        }
        self::assertSame($may, Access::ofBuild($user, $build)?->mayWhat(Role::from($least)));
    }

    /** Found by attack: an owner made an invitation, was made a reader, and let himself back in as an owner. */
    public function test_invitations_and_links_live_no_longer_than_the_right_of_whoever_made_them(): void
    {
        $build = $this->begin('One');
        $at = "/api/workshops/{$this->workshop->id}";
        $this->come($this->invite('owner'), 'Ash')->assertCreated();
        $ash = $this->named('Ash');
        $lowered = [
            'removed' => fn () => $this->deleteJson("{$at}/people/{$ash->id}"),
            'made a reader' => fn () => $this->putJson("{$at}/people/{$ash->id}", ['role' => 'reader']),
        ];
        foreach ($lowered as $how => $lower) {
            $this->workshop->members()->syncWithoutDetaching([$ash->id => ['role' => 'owner']]);
            $this->as($ash);
            $back = $this->invite('owner', ['for' => 'Myself, later']);
            $kept = $this->invite('owner', ['for' => 'Kept']);
            $link = '/api'.$this->postJson("/api/builds/{$build->id}/links", ['label' => 'Mine', 'days' => 300])->json('path');
            // One that stood when the right was lost otherwise than through here, as by an older version.
            $invitation = Invitation::query()->where('for', 'Kept')->firstOrFail();
            $invitation->delete();
            $this->as($this->owner);
            $lost = $lower()->assertOk()
                ->assertJsonPath('invitations', ['Myself, later'])
                ->assertJsonPath('links', ['Mine']);
            self::assertShape('Revoked', $lost);
            Invitation::query()->create($invitation->only(['workshop_id', 'role', 'token', 'for', 'made_by', 'expires_at']));
            $this->as($ash);
            $this->postJson($back)->assertNotFound();
            self::assertStringContainsString('no longer an owner', (string) $this->postJson($kept)->assertStatus(410)->json('detail'), $how);
            $this->getJson($kept)->assertStatus(410);
            self::assertNotSame(Role::Owner, Access::ofWorkshop($ash, $this->workshop->id));
            $this->postJson($link)->assertNotFound();
            Invitation::query()->where('for', 'Kept')->delete();
        }
    }

    public function test_a_visit_ends_with_the_right_of_whoever_made_the_link_and_a_token_with_its_owners(): void
    {
        $build = $this->begin('One');
        $this->come($this->invite('owner'), 'Ash')->assertCreated();
        $ash = $this->named('Ash');
        $this->as($ash);
        $link = '/api'.$this->postJson("/api/builds/{$build->id}/links", ['label' => 'Mine', 'days' => 300])->json('path');
        $token = $ash->createToken('t', ['read', 'edit'])->plainTextToken;
        $this->flushSession();
        $this->app->make('auth')->forgetGuards();
        $this->postJson($link)->assertOk();
        $this->getJson("/api/builds/{$build->id}")->assertOk();
        // Taken out of the rows alone: what is held against is the right of now, not a tidy table.
        $this->workshop->members()->updateExistingPivot($ash->id, ['role' => 'builder']);
        $this->getJson("/api/builds/{$build->id}")->assertUnauthorized();
        self::assertStringContainsString('may no longer share', (string) $this->postJson($link)->assertStatus(410)->json('detail'));
        $this->workshop->members()->detach($ash->id);
        $this->flushSession();
        $this->app->make('auth')->forgetGuards();
        $this->withToken($token)->getJson("/api/builds/{$build->id}")->assertNotFound();
    }

    public function test_an_owner_asks_everybody_for_a_second_factor(): void
    {
        $build = $this->begin('One');
        $this->come($this->invite('builder'), 'Ash')->assertCreated();
        $ash = $this->named('Ash');
        $at = "/api/workshops/{$this->workshop->id}";
        $this->as($this->owner);
        $said = $this->putJson("{$at}/second-factor", ['second' => true])->assertStatus(409)->json('detail');
        self::assertStringContainsString('your own second factor first', (string) $said);
        $this->owner->forceFill(['second_secret' => 'x', 'second_since' => now()])->save();
        $this->putJson("{$at}/second-factor", ['second' => true])->assertNoContent();
        self::assertShape('WorkshopPeople', $this->getJson("{$at}/people")->assertJsonPath('requires_second', true));
        $this->as($ash);
        $this->getJson('/api/session')->assertJsonPath('user.workshops.0.shut', true);
        $this->getJson("/api/builds/{$build->id}")->assertNotFound();
        $this->getJson("{$at}/people")->assertNotFound();
        $this->getJson('/api/builds')->assertExactJson([]);
        $this->withToken($ash->createToken('t', ['read'])->plainTextToken)->getJson("/api/builds/{$build->id}")->assertNotFound();
        $this->withoutToken();
        $ash->forceFill(['second_secret' => 'x', 'second_since' => now()])->save();
        $this->as($ash);
        $this->getJson("/api/builds/{$build->id}")->assertOk();
        $this->getJson('/api/session')->assertJsonPath('user.workshops.0.shut', false);
    }

    public function test_owners_see_what_happened_at_the_doors_and_nobody_else_does(): void
    {
        $build = $this->begin('One');
        $at = "/api/workshops/{$this->workshop->id}/events";
        $this->come($this->invite('builder', ['for' => 'Ash']), 'Ash')->assertCreated();
        $ash = $this->named('Ash');
        $this->as($ash);
        $this->getJson($at)->assertForbidden();
        $this->getJson("/api/builds/{$build->id}/file")->assertOk();
        $this->as($this->owner);
        $link = '/api'.$this->postJson("/api/builds/{$build->id}/links", ['label' => 'Club', 'days' => 3])->json('path');
        $this->postJson($link)->assertOk();
        $this->deleteJson("/api/workshops/{$this->workshop->id}/people/{$ash->id}")->assertOk();
        $seen = $this->getJson($at)->assertOk();
        self::assertSame(
            ['removed', 'link_opened', 'link_made', 'exported', 'joined', 'invited'],
            array_values(array_diff(array_column($seen->json(), 'kind'), ['signed_in'])),
        );
        self::assertSame(['Wren Holm', 'Ash'], [$seen->json('0.by'), $seen->json('0.about')]);
        self::assertSame(
            [],
            Schemas::breaks((string) json_encode($seen->json('0')), 'api/openapi.json#/components/schemas/Event'),
        );
        $this->as($this->stranger());
        $this->getJson($at)->assertNotFound();
    }
}

<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use App\Accounts\Access;
use App\Accounts\Role;
use App\Models\Build;
use App\Models\Import;
use App\Models\Invitation;
use App\Models\LibraryPart;
use App\Models\Workshop;
use Closure;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;

/**
 * Opens a route to whoever is at least so much in what it is about: a visitor and a reader see, a builder changes, an owner says who may. What is
 * about nothing but oneself is an owner's.
 */
final class May
{
    /** @param  Closure(Request): Response  $next */
    public function handle(Request $request, Closure $next, string $least): Response
    {
        $least = Role::from($least);
        $token = Access::token();
        if ($token !== null) {
            abort_if($least === Role::Owner, 403, 'No token may do this; sign in in a browser.');
            abort_unless(
                $token->can($least === Role::Builder ? 'edit' : 'read'),
                403,
                $least === Role::Builder
                    ? 'This token may read, not change anything.'
                    : 'This token may not read this.',
            );
        }
        $role = $this->role($request);
        abort_if($role === null, 404);
        abort_unless(
            $role->mayWhat($least),
            403,
            Access::user() === null
                ? 'The link you came by shows one build and changes nothing. Whoever sent it can invite you.'
                : ($least === Role::Owner
                    ? 'Only an owner may do this. People lists who that is.'
                    : 'You may read this, not change it. An owner can make you a builder; People lists who that is.'),
        );

        return $next($request);
    }

    private function role(Request $request): ?Role
    {
        foreach (['build', 'import', 'item', 'invitation', 'workshop'] as $name) {
            $of = $request->route($name);
            if ($of !== null) {
                return match (true) {
                    $of instanceof Build => Access::inBuild($of),
                    $of instanceof Import => Access::inBuild($of->build()->firstOrFail()),
                    $of instanceof LibraryPart, $of instanceof Invitation => Access::inWorkshop($of->workshop_id),
                    $of instanceof Workshop => Access::inWorkshop($of->id),
                    default => null,
                };
            }
        }

        return Access::user() === null ? Role::Visitor : Role::Owner;
    }
}

<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Models\User;
use App\Models\Workshop;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\Auth;
use Illuminate\Validation\ValidationException;

final class SessionController
{
    public function show(Request $request): JsonResponse
    {
        return new JsonResponse(['user' => self::who($request->user()), 'demo' => self::demo() !== null]);
    }

    /**
     * @throws ValidationException
     */
    public function store(Request $request): JsonResponse
    {
        abort_unless($request->hasSession(), 400, 'Signing in is for browsers; a script names the address of this server in its Referer.');
        $credentials = $request->validate(['email' => ['required', 'string', 'email', 'max:190'], 'password' => ['required', 'string', 'max:200']]);
        if (! Auth::attempt($credentials, true)) {
            throw ValidationException::withMessages(['email' => 'No account has this e-mail address and password.']);
        }
        $request->session()->regenerate();

        return $this->show($request);
    }

    /** The one button of the demo: enters its workshop without a password. */
    public function demoStore(Request $request): JsonResponse
    {
        abort_unless($request->hasSession(), 400, 'Entering is for browsers; a script names the address of this server in its Referer.');
        $user = self::demo() ?? abort(404, 'This is not a demo.');
        Auth::login($user, true);
        $request->session()->regenerate();

        return $this->show($request);
    }

    public function destroy(Request $request): Response
    {
        Auth::guard('web')->logout();
        $request->session()->invalidate();
        $request->session()->regenerateToken();

        return new Response(status: 204);
    }

    private static function demo(): ?User
    {
        return config('app.demo') === true ? Workshop::query()->where('demo', true)->first()?->members()->orderBy('users.id')->first() : null;
    }

    /**
     * @return array<string, mixed>|null
     */
    private static function who(mixed $user): ?array
    {
        return $user instanceof User ? [
            'name' => $user->name,
            'email' => $user->email,
            'workshops' => $user->workshops()->orderBy('name')->get()->map(static fn (Workshop $w): array => ['id' => $w->id, 'name' => $w->name, 'demo' => $w->demo])->all(),
        ] : null;
    }
}

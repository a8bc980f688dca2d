<?php

declare(strict_types=1);

namespace App\Accounts;

use App\Models\User;
use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\Hash;
use Illuminate\Support\Facades\RateLimiter;
use Illuminate\Validation\ValidationException;

/**
 * How often a password may be guessed: few times a minute for one account from one address, more from one address over
 * all accounts, more for one account over all addresses. An address the account has been used from before is not held
 * back by what others try, so that nobody can lock the right person out.
 */
final readonly class SignInLimit
{
    private const FROM_HERE = 6;

    private const FROM_ADDRESS = 40;

    private const OF_ACCOUNT = 60;

    private const SECONDS = 60;

    private const KNOWN_DAYS = 90;

    public function __construct(private string $account, private string $address)
    {
    }

    /** The limit of one account from one address, or the answer that one has to wait. */
    public static function orWait(string $account, string $address): self
    {
        $limit = new self($account, $address);
        $wait = $limit->wait();
        abort_if($wait > 0, 429, "Too many tries. Wait {$wait} seconds before the next one.", [
            'Retry-After' => (string) $wait,
        ]);

        return $limit;
    }

    /**
     * A wrong password of somebody who is signed in counts as a try, and is named at its field.
     *
     * @throws ValidationException
     */
    public function prove(User $user, string $password, string $field): void
    {
        if (! Hash::check($password, (string) $user->getAuthPassword())) {
            $this->failed();
            throw ValidationException::withMessages([$field => 'This is not your password of now.']);
        }
    }

    /** Seconds to wait before the next try; none when it may be made now. */
    public function wait(): int
    {
        $full = array_filter(
            $this->counters(),
            static fn (int $most, string $key): bool => RateLimiter::tooManyAttempts($key, $most),
            ARRAY_FILTER_USE_BOTH,
        );

        return $full === [] ? 0 : max(array_map(RateLimiter::availableIn(...), array_keys($full)));
    }

    public function failed(): void
    {
        foreach (array_keys($this->counters()) as $key) {
            RateLimiter::hit($key, self::SECONDS);
        }
    }

    public function succeeded(): void
    {
        RateLimiter::clear($this->key('here', $this->account.'|'.$this->address));
        Cache::put($this->key('known', $this->account.'|'.$this->address), true, now()->addDays(self::KNOWN_DAYS));
    }

    /**
     * @return array<string, int> most tries by counter
     */
    private function counters(): array
    {
        $known = Cache::get($this->key('known', $this->account.'|'.$this->address)) === true;

        return [
            $this->key('here', $this->account.'|'.$this->address) => self::FROM_HERE,
            $this->key('from', $this->address) => self::FROM_ADDRESS,
        ] + ($known ? [] : [$this->key('of', $this->account) => self::OF_ACCOUNT]);
    }

    private function key(string $kind, string $of): string
    {
        return "sign-in/{$kind}/".hash('sha256', mb_strtolower($of));
    }
}

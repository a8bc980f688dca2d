<?php

declare(strict_types=1);

namespace App\Accounts;

use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\RateLimiter;

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

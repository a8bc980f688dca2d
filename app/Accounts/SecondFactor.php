<?php

declare(strict_types=1);

namespace App\Accounts;

use App\Models\User;
use Illuminate\Support\Facades\DB;

/** The code asked for after the password, of those who want it so; with codes on paper for when the device is lost. */
final readonly class SecondFactor
{
    private const CODES = 10;

    public function __construct(private User $user)
    {
    }

    public function isOn(): bool
    {
        return $this->user->second_since !== null;
    }

    /** A secret to be shown once; it counts when a code made with it comes back. */
    public function begin(): string
    {
        $secret = Totp::secret();
        $this->user->forceFill(['second_secret' => $secret, 'second_since' => null, 'second_period' => 0])->save();

        return $secret;
    }

    /**
     * @return list<string>|null recovery codes, told once; null where the code is not right
     */
    public function confirm(string $code): ?array
    {
        if ($this->isOn() || ! $this->takes($code, false)) {
            return null;
        }
        $this->user->forceFill(['second_since' => now()])->save();

        return $this->freshCodes();
    }

    public function end(): void
    {
        $this->user
            ->forceFill([
                'second_secret' => null,
                'second_since' => null,
                'second_period' => 0,
                'recovery_codes' => null,
            ])
            ->save();
    }

    /**
     * @return list<string> each good for one sign-in, in place of those before
     */
    public function freshCodes(): array
    {
        $codes = [];
        while (count($codes) < self::CODES) {
            $codes[] = implode('-', str_split(bin2hex(random_bytes(5)), 5));
        }
        $this->user->forceFill(['recovery_codes' => array_map(Secret::hash(...), $codes)])->save();

        return $codes;
    }

    /** Whether a code opens; one from paper is used up by it, and none from a device opens twice. */
    public function takes(string $code, bool $orPaper = true): bool
    {
        $given = strtolower((string) preg_replace('/\s+/', '', $code));

        // Two tries with one code at the same moment: the second waits, and finds it used.
        return DB::transaction(function () use ($given, $orPaper): bool {
            $user = User::query()->lockForUpdate()->findOrFail($this->user->id);
            $period =
                $user->second_secret === null
                    ? null
                    : Totp::period($user->second_secret, $given, now()->getTimestamp(), $user->second_period);
            if ($period !== null) {
                $user->forceFill(['second_period' => $period])->save();
                $this->user->refresh();

                return true;
            }
            $held = $user->recovery_codes ?? [];
            $at = $orPaper ? array_search(Secret::hash($given), $held, true) : false;
            if ($at === false) {
                return false;
            }
            unset($held[$at]);
            $user->forceFill(['recovery_codes' => array_values($held)])->save();
            $this->user->refresh();

            return true;
        });
    }
}

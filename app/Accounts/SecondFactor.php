<?php

declare(strict_types=1);

namespace App\Accounts;

use App\Models\User;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Hash;
use ParagonIE\ConstantTime\Base32;

/** The code asked for after the password, of those who want it so; with codes on paper for when the device is lost. */
final readonly class SecondFactor
{
    private const CODES = 10;

    /** Of one code on paper: 80 bits. */
    private const BYTES = 10;

    private const ROUNDS = 9;

    /** Wrong codes of a day after which only those on paper open. */
    public const WRONG_A_DAY = 30;

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
        EventLog::ofAccount(EventKind::SecondOn, $this->user);

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
        EventLog::ofAccount(EventKind::SecondOff, $this->user);
    }

    /**
     * @return list<string> each good for one sign-in, in place of those before
     */
    public function freshCodes(): array
    {
        $codes = [];
        while (count($codes) < self::CODES) {
            // Its number in the list comes first, so that one slow hash is worked out for a try, not ten.
            $codes[] = count($codes).'-'.implode('-', str_split(strtolower(Base32::encodeUpperUnpadded(random_bytes(self::BYTES))), 4));
        }
        $this->user->forceFill(['recovery_codes' => array_map(self::slow(...), $codes)])->save();

        return $codes;
    }

    /**
     * Whether a code opens; one from paper is used up by it, and none from a device opens twice. Wrong ones are counted: after too
     * many in a day only those from paper open, which nobody guesses.
     */
    public function takes(string $code, bool $orPaper = true): bool
    {
        $given = strtolower((string) preg_replace('/\s+/', '', $code));

        // Two tries with one code at the same moment: the second waits, and finds it used.
        return DB::transaction(function () use ($given, $orPaper): bool {
            $user = User::query()->lockForUpdate()->findOrFail($this->user->id);
            $right =
                (! self::isExhausted($user) && self::takesPeriod($user, $given)) ||
                ($orPaper && self::takesPaper($user, $given));
            if (! $right) {
                self::count($user);
            }
            $this->user->refresh();

            return $right;
        });
    }

    /** Slow to try through; the codes are long, so that a tenth of what a password takes is plenty. */
    private static function slow(string $code): string
    {
        return Hash::make($code, ['rounds' => self::ROUNDS]);
    }

    private static function isExhausted(User $user): bool
    {
        return self::wrongToday($user) >= self::WRONG_A_DAY;
    }

    private static function wrongToday(User $user): int
    {
        return $user->second_wrong_on === now()->format('Y-m-d') ? $user->second_wrong : 0;
    }

    private static function count(User $user): void
    {
        $wrong = self::wrongToday($user) + 1;
        $user->forceFill(['second_wrong' => $wrong, 'second_wrong_on' => now()->format('Y-m-d')])->save();
        if ($wrong === self::WRONG_A_DAY) {
            EventLog::ofAccount(EventKind::CodesGuessed, $user);
        }
    }

    private static function takesPeriod(User $user, string $given): bool
    {
        $period =
            $user->second_secret === null
                ? null
                : Totp::period($user->second_secret, $given, now()->getTimestamp(), $user->second_period);
        if ($period === null) {
            return false;
        }
        $user->forceFill(['second_period' => $period])->save();

        return true;
    }

    private static function takesPaper(User $user, string $given): bool
    {
        $held = $user->recovery_codes ?? [];
        // Those made before codes had a number are kept as a hash of a hash, and tried one after another.
        [$among, $tried] = match (1) {
            preg_match('/^(\d)(-[a-z2-7]{4}){4}$/', $given, $m) => [array_intersect_key($held, [(int) $m[1] => true]), $given],
            preg_match('/^[0-9a-f]{5}-[0-9a-f]{5}$/', $given) => [$held, Secret::hash($given)],
            default => [[], ''],
        };
        foreach ($among as $at => $hash) {
            if (Hash::check($tried, $hash)) {
                unset($held[$at]);
                $user->forceFill(['recovery_codes' => $held])->save();

                return true;
            }
        }

        return false;
    }
}

<?php

declare(strict_types=1);

namespace App\Accounts;

use ParagonIE\ConstantTime\Base32;

/** Codes that follow from a secret and the clock: RFC 6238 with SHA-1, six digits, thirty seconds, as every authenticator takes it. */
final class Totp
{
    public const PERIOD = 30;

    public const DIGITS = 6;

    /** Periods a clock may be off, each way. */
    private const SLACK = 1;

    /** 160 bits, as RFC 4226 recommends, in base 32. */
    public static function secret(): string
    {
        return Base32::encodeUpperUnpadded(random_bytes(20));
    }

    public static function code(string $secret, int $period, int $digits = self::DIGITS): string
    {
        $hash = hash_hmac('sha1', pack('J', $period), Base32::decodeUpper($secret), true);
        $at = ord($hash[19]) & 0x0F;
        /** @var array{1: int} $word */
        $word = unpack('N', substr($hash, $at, 4));

        return str_pad((string) (($word[1] & 0x7FFFFFFF) % 10 ** $digits), $digits, '0', STR_PAD_LEFT);
    }

    /**
     * @param  int  $after  the last period whose code was taken already
     * @return int|null the period it is the code of; null for a wrong one, and for one that was used
     */
    public static function period(string $secret, string $code, int $now, int $after): ?int
    {
        $here = intdiv($now, self::PERIOD);
        for ($period = $here - self::SLACK; $period <= $here + self::SLACK; $period++) {
            if ($period > $after && hash_equals(self::code($secret, $period), $code)) {
                return $period;
            }
        }

        return null;
    }

    /** What an authenticator reads from the picture of it. */
    public static function address(string $secret, string $account): string
    {
        $issuer = 'Frugal Magpie';

        return 'otpauth://totp/'.
            rawurlencode("{$issuer}:{$account}").
            '?'.
            http_build_query(['secret' => $secret, 'issuer' => $issuer], encoding_type: PHP_QUERY_RFC3986);
    }
}

<?php

declare(strict_types=1);

namespace Magpie\Core\Tuning;

/** Samples of a WAV file: RIFF, whole numbers of 8, 16, 24 or 32 bits, or floats of 32, the first channel. */
final readonly class Sound
{
    /** Seconds that are listened to. */
    /** Samples are shares of full scale; a float may be beyond, never so far. */
    private const LOUDEST = 1e6;

    private const LONGEST = 20;

    /**
     * @param  list<float>  $samples  −1 to 1
     * @param  float  $rate  samples a second
     */
    private function __construct(public array $samples, public float $rate)
    {
    }

    /**
     * @throws CannotTune
     */
    public static function read(string $bytes): self
    {
        if (strlen($bytes) < 44 || substr($bytes, 0, 4) !== 'RIFF' || substr($bytes, 8, 4) !== 'WAVE') {
            throw new CannotTune('it is no WAV file: it does not begin with RIFF and WAVE.');
        }
        $at = 12;
        $format = $data = null;
        while ($at + 8 <= strlen($bytes)) {
            $name = substr($bytes, $at, 4);
            $size = self::number('V', substr($bytes, $at + 4, 4));
            $body = substr($bytes, $at + 8, $size);
            if ($name === 'fmt ' && strlen($body) >= 16) {
                $format = $body;
            } elseif ($name === 'data') {
                $data = $body;
            }
            $at += 8 + $size + ($size & 1);
        }
        if ($format === null || $data === null || $data === '') {
            throw new CannotTune('the WAV file has no '.($format === null ? 'format' : 'sound').' in it.');
        }
        $kind = self::number('v', substr($format, 0, 2));
        $channels = self::number('v', substr($format, 2, 2));
        $rate = self::number('V', substr($format, 4, 4));
        $bits = self::number('v', substr($format, 14, 2));
        if ($kind === 0xFFFE && strlen($format) >= 26) {
            $kind = self::number('v', substr($format, 24, 2));
        }
        if (
            ! in_array([$kind, $bits], [[1, 8], [1, 16], [1, 24], [1, 32], [3, 32]], true) ||
            $channels < 1 ||
            $rate < 1000
        ) {
            throw new CannotTune(
                "a WAV file of this kind ({$kind}, {$bits} bits, {$rate} a second) cannot be read: save it as 16-bit PCM.",
            );
        }
        $frame = intdiv($bits, 8) * $channels;
        $frames = min(intdiv(strlen($data), $frame), $rate * self::LONGEST);
        $samples = [];
        for ($i = 0; $i < $frames; $i++) {
            $samples[] = self::sample(substr($data, $i * $frame, intdiv($bits, 8)), $kind, $bits);
        }

        return new self($samples, (float) $rate);
    }

    private static function sample(string $bytes, int $kind, int $bits): float
    {
        if ($kind === 3) {
            $value = unpack('g', $bytes);

            return is_array($value) && is_float($value[1]) && abs($value[1]) <= self::LOUDEST
                ? $value[1]
                : throw new CannotTune('a sample of the sound is no number, or far beyond any.');
        }
        if ($bits === 8) {
            return (ord($bytes) - 128) / 128;
        }
        $value = 0;
        for ($i = strlen($bytes) - 1; $i >= 0; $i--) {
            $value = ($value << 8) | ord($bytes[$i]);
        }
        $top = 1 << ($bits - 1);

        return ($value >= $top ? $value - 2 * $top : $value) / $top;
    }

    private static function number(string $as, string $bytes): int
    {
        $found = unpack($as, str_pad($bytes, 4, "\0"));

        return is_array($found) && is_int($found[1]) ? $found[1] : 0;
    }
}

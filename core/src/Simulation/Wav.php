<?php

declare(strict_types=1);

namespace Magpie\Core\Simulation;

/** Samples as a WAV file of 16 bits, one channel. */
final class Wav
{
    /**
     * @param  iterable<float>  $samples  −1 to 1
     */
    public static function of(iterable $samples, int $rate): string
    {
        $data = '';
        foreach ($samples as $sample) {
            $data .= pack('v', ((int) round(max(-1.0, min(1.0, $sample)) * 32767)) & 0xFFFF);
        }
        $size = strlen($data);

        return 'RIFF'.
            pack('V', 36 + $size).
            'WAVEfmt '.
            pack('VvvVVvv', 16, 1, 1, $rate, $rate * 2, 2, 16).
            'data'.
            pack('V', $size).
            $data;
    }
}

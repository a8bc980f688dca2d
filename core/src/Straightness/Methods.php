<?php

declare(strict_types=1);

namespace Magpie\Core\Straightness;

/** Everything that can be worked from a few readings, by its name: what makes a machine straight, and what tunes it. */
final class Methods
{
    /** Those that tune, and make nothing straight. */
    private const TUNE = ['extruder', 'flow', 'floating-head', 'relay', 'belt-pair'];

    public static function group(string $kind): string
    {
        return in_array($kind, self::TUNE, true) ? 'tune' : 'straight';
    }

    /**
     * @return array<string, Method>
     */
    public static function all(): array
    {
        static $all = null;
        if ($all === null) {
            $all = [];
            foreach (
                [
                    new Methods\Corners,
                    new Methods\Diagonals,
                    new Methods\Straight,
                    new Methods\Parallel,
                    new Methods\Tightened,
                    new Methods\Racking,
                    new Methods\Tram,
                    new Methods\RunOut,
                    new Methods\Backlash,
                    new Methods\Pitch,
                    new Methods\Lean,
                    new Methods\Cranks,
                    new Methods\Circle,
                    new Methods\ExtruderSteps,
                    new Methods\WallFlow,
                    new Methods\FloatingHead,
                    new Methods\RelayTest,
                    new Methods\BeltPair,
                ] as $method
            ) {
                $all[$method->key()] = $method;
            }
        }

        /** @var array<string, Method> */
        return $all;
    }

    /**
     * @param  array<string, string>  $given
     *
     * @throws CannotAlign
     */
    public static function work(string $kind, array $given): Outcome
    {
        $method =
            self::all()[$kind] ??
            throw new CannotAlign('kind', "\"{$kind}\" is none of ".implode(', ', array_keys(self::all())).'.');
        $known = array_map(static fn (Ask $ask): string => $ask->key, $method->asks());
        foreach (array_keys($given) as $key) {
            if (! in_array((string) $key, $known, true)) {
                throw new CannotAlign((string) $key, "is not asked for by {$kind}: ".implode(', ', $known).'.');
            }
        }

        return $method->work(new Given($given));
    }
}

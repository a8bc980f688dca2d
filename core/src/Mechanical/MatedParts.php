<?php

declare(strict_types=1);

namespace Magpie\Core\Mechanical;

use Closure;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Machine\Mate;

/** The two parts that meet in a mate, whichever way round it names them, in the order a check asks for. */
final readonly class MatedParts
{
    private function __construct(public Mate $mate, public Fitted $first, public Fitted $second)
    {
    }

    /**
     * @param  Closure(Fitted, Fitted): bool  $wanted  whether these two, in this order, are what is asked for
     * @return self|null null when a part is not fitted, or neither order is wanted
     */
    public static function of(Build $build, Mate $mate, Closure $wanted): ?self
    {
        [$one, $other] = [$build->fitted($mate->between[0]), $build->fitted($mate->between[1])];

        return match (true) {
            $one === null || $other === null => null,
            $wanted($one, $other) => new self($mate, $one, $other),
            $wanted($other, $one) => new self($mate, $other, $one),
            default => null,
        };
    }

    /**
     * @param  Closure(Fitted, Fitted): bool  $wanted
     * @return iterable<self>
     */
    public static function all(Build $build, Closure $wanted): iterable
    {
        foreach ($build->mates as $mate) {
            $found = self::of($build, $mate, $wanted);
            if ($found !== null) {
                yield $found;
            }
        }
    }
}

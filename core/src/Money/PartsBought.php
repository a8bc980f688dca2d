<?php

declare(strict_types=1);

namespace Magpie\Core\Money;

use Magpie\Core\Inspection\Survey;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Buying\Offer;
use Magpie\Core\Machine\Need;

/** For each part: how many needs take it, and what it can be bought for. */
final class PartsBought
{
    /** @var array<string, int> */
    private readonly array $takers;

    /** @var array<string, list<Offer>> */
    private readonly array $offers;

    /** The one of this survey, made when it is first asked for. */
    public static function of(Survey $survey): self
    {
        return $survey->once(self::class, static fn (Survey $b): self => new self($b->build));
    }

    public function __construct(Build $build)
    {
        $chosen = array_filter(array_map(static fn (Need $n): ?string => $n->choice, $build->needs));
        $this->takers = array_count_values($chosen);
        $offers = [];
        foreach ($build->offers as $offer) {
            $offers[$offer->part][] = $offer;
        }
        $this->offers = $offers;
    }

    /** How many needs a part is chosen for. */
    public function takers(string $part): int
    {
        return $this->takers[$part] ?? 0;
    }

    /**
     * @return list<Offer> what a part can be bought for
     */
    public function offers(string $part): array
    {
        return $this->offers[$part] ?? [];
    }
}

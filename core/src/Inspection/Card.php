<?php

declare(strict_types=1);

namespace Magpie\Core\Inspection;

use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Trade;

/**
 * What a check is, apart from any build: its question, where the rule comes from and its thresholds.
 */
final readonly class Card
{
    /**
     * @param  string  $source  the standard or handbook, or "common practice, no source"
     * @param  array<string, Threshold>  $thresholds  defaults a builder may change
     * @param  Evidence  $asks  weakest evidence on which the check may pass
     * @param  bool  $informs  it tells a figure and holds whatever that is, once it can be told
     * @param  list<Topic>  $topics  pages it belongs on, besides the list of all
     * @param  bool  $supposes  it may be asked with other values in place of those nobody stands for; not where sizes shape a whole
     * @param  bool  $mayGo  a cure may take its subject away: an output nothing hangs on any more has nothing to carry
     */
    public function __construct(
        public string $id,
        public string $title,
        public string $question,
        public Trade $trade,
        public string $source,
        public array $thresholds = [],
        public Evidence $asks = Evidence::Manual,
        public bool $mayGo = false,
        public bool $informs = false,
        public array $topics = [],
        public bool $supposes = true,
    ) {
    }
}

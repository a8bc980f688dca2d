<?php

declare(strict_types=1);

namespace Magpie\Core\Machine\Choosing;

/** A question of the build, how it was decided and on what. */
final readonly class Decision
{
    /**
     * @param  string|null  $need  of a part: the need it fills
     * @param  string|null  $choice  part, route or side that was taken; words when it is about something else
     * @param  list<Rejection>  $rejected
     * @param  list<Opinion>  $opinions
     * @param  array<string, string>  $facts  what stood when it was made, by name
     */
    public function __construct(
        public string $ref,
        public string $question,
        public DecisionAbout $about,
        public DecisionState $state = DecisionState::Open,
        public ?string $need = null,
        public ?string $school = null,
        public ?string $choice = null,
        public ?string $reason = null,
        public ?string $who = null,
        public ?string $date = null,
        public array $rejected = [],
        public array $opinions = [],
        public array $facts = [],
    ) {
    }
}

<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use Magpie\Core\Inspection\Survey;
use Magpie\Core\Machine\Ability;

/** Which heat sink sits on which part. */
final readonly class HeatSinks
{
    /**
     * @param  array<string, string>  $on  part → the first sink that sits on it, by their needs
     */
    private function __construct(private array $on)
    {
    }

    public static function of(Survey $survey): self
    {
        return $survey->once(self::class, static function (Survey $survey): self {
            $on = [];
            foreach ($survey->build->fittedThat(Ability::TakesHeat) as $ref => $sink) {
                $host = $sink->need->host();
                if ($host !== null) {
                    $on[$host] ??= (string) $ref;
                }
            }

            return new self($on);
        });
    }

    public function on(string $need): ?string
    {
        return $this->on[$need] ?? null;
    }
}

<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use Magpie\Core\Inspection\Carried;
use Magpie\Core\Inspection\CarriedOver;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Reads;

/** Which leads name which fuse as the one in them. */
final class FusedLeads implements Carried
{
    /** @var array<string, list<string>> need of the fuse → leads */
    private array $by = [];

    private ?Reads $reads;

    /** The one of this survey, made when it is first asked for. */
    public static function of(Survey $survey): self
    {
        return $survey->once(self::class, static fn (Survey $s): self => new self($s->build));
    }

    private function __construct(Build $build)
    {
        $this->reads = $build->reads();
        foreach ($build->leads as $ref => $lead) {
            if ($lead->protection !== null) {
                $this->by[$lead->protection][] = (string) $ref;
            }
        }
    }

    public function carriedTo(Survey $survey, array $changed, bool $stands): CarriedOver
    {
        if ($stands || $survey->reads === null) {
            return new CarriedOver($this, []);
        }
        [$next, $from] = $survey->reads->during(static fn (): self => new self($survey->build));
        $cells = [];
        foreach ($next->by + $this->by as $fuse => $_) {
            if (($next->by[$fuse] ?? null) !== ($this->by[$fuse] ?? null)) {
                $cells[] = "fused/{$fuse}";
            }
        }

        return new CarriedOver($next, $cells, $from);
    }

    /**
     * @return list<string> leads that name a fuse
     */
    public function by(string $fuse): array
    {
        $this->reads?->note("fused/{$fuse}");

        return $this->by[$fuse] ?? [];
    }
}

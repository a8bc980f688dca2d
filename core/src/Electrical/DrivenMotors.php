<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use Magpie\Core\Inspection\Carried;
use Magpie\Core\Inspection\CarriedOver;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Reads;

/** Which motors hang on which driver, by the leads between their motor ports. */
final class DrivenMotors implements Carried
{
    /** @var array<string, non-empty-list<string>> driver → motors */
    private array $by = [];

    /** @var array<string, string> motor → driver; the first where several drivers claim one */
    private array $behind = [];

    private ?Reads $reads;

    /** The one of this survey, made when it is first asked for. */
    public static function of(Survey $survey): self
    {
        return $survey->once(self::class, static fn (Survey $b): self => new self($b->build));
    }

    public function __construct(Build $build)
    {
        $this->reads = $build->reads();
        $motors = array_fill_keys(array_keys([...$build->fittedThat(Ability::Steps)]), true);
        foreach ($build->linked() as [$from, $to]) {
            foreach ([[$from, $to], [$to, $from]] as [$one, $other]) {
                if ($one->port === 'motor' && isset($motors[$other->need])) {
                    $this->by[$one->need][] = $other->need;
                    $this->behind[$other->need] ??= $one->need;
                }
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
        foreach (
            ['by' => [$next->by, $this->by], 'behind' => [$next->behind, $this->behind]] as $kind => [$now, $was]
        ) {
            foreach ($now + $was as $need => $_) {
                if (($now[$need] ?? null) !== ($was[$need] ?? null)) {
                    $cells[] = "driven/{$kind}/{$need}";
                }
            }
        }

        return new CarriedOver($next, $cells, $from);
    }

    /**
     * @return list<string> the motors on a driver
     */
    public function on(string $driver): array
    {
        $this->reads?->note("driven/by/{$driver}");

        return $this->by[$driver] ?? [];
    }

    /** The driver a motor hangs on. */
    public function behind(string $motor): ?string
    {
        $this->reads?->note("driven/behind/{$motor}");

        return $this->behind[$motor] ?? null;
    }
}

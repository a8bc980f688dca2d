<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use Magpie\Core\Inspection\Bench;
use Magpie\Core\Inspection\Settled;
use Magpie\Core\Machine\Build;

/** Which motors hang on which driver, by the leads between their motor ports. */
final readonly class DrivenMotors implements Settled
{
    /** @var array<string, non-empty-list<string>> driver → motors */
    public array $by;

    /** @var array<string, string> motor → driver; the first where several drivers claim one */
    public array $behind;

    /** The one of this bench, made when it is first asked for. */
    public static function of(Bench $bench): self
    {
        return $bench->once(self::class, static fn (Bench $b): self => new self($b->build));
    }

    public function __construct(Build $build)
    {
        $motors = array_fill_keys(array_keys([...$build->fittedOf('stepper_motor')]), true);
        $by = $behind = [];
        foreach ($build->runs() as [$from, $to]) {
            foreach ([[$from, $to], [$to, $from]] as [$one, $other]) {
                if ($one->port === 'motor' && isset($motors[$other->need])) {
                    $by[$one->need][] = $other->need;
                    $behind[$other->need] ??= $one->need;
                }
            }
        }
        $this->by = $by;
        $this->behind = $behind;
    }
}

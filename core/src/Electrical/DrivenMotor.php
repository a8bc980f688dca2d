<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical;

use Magpie\Core\Inspection\Bound;
use Magpie\Core\Inspection\Inquiry;
use Magpie\Core\Inspection\Subject;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Quantity\Quantity;

/** A driver and the motors on its phase leads. */
final readonly class DrivenMotor
{
    /**
     * @param  non-empty-list<Fitted>  $motors
     */
    private function __construct(public Fitted $driver, public array $motors)
    {
    }

    public static function of(Survey $survey, string $driver): ?self
    {
        $fitted = $survey->build->fitted($driver);
        $motors = array_values(
            array_filter(array_map($survey->build->fitted(...), DrivenMotors::of($survey)->on($driver))),
        );

        return $fitted === null || $motors === [] ? null : new self($fitted, $motors);
    }

    /** How many motors share the current of one driver, in parallel: pieces of either side are dealt out evenly. */
    public function sharing(): int
    {
        $pieces = array_sum(array_map(static fn (Fitted $m): int => $m->need->quantity, $this->motors));

        return max(1, (int) ceil($pieces / max(1, $this->driver->need->quantity)));
    }

    /**
     * Current a motor's phase may take for long, rms: a sheet that states the peak of the sine states 1.414 times that.
     *
     * @throws \Magpie\Core\Inspection\InputMissing
     */
    public static function rated(Inquiry $inquiry, Fitted $motor, string $symbol = 'I_m'): Quantity
    {
        $rated = $inquiry->read($motor, 'rated_current', $symbol, Bound::Lowest);

        return $inquiry->tryFlag($motor, 'current_is_peak') === true
            ? $inquiry->work(
                'Stated as peak',
                "{$symbol} = I_peak / 1.414",
                ['I_peak' => $rated],
                $rated->over(M_SQRT2),
                'A',
            )
            : $rated;
    }

    /** Current the weakest of its motors may take, rms; null when one of them does not say. */
    public function weakest(): ?Quantity
    {
        $least = null;
        foreach ($this->motors as $motor) {
            $rated = $motor->part->spec('rated_current')?->lowest();
            if ($rated === null) {
                return null;
            }
            $rated = $motor->part->spec('current_is_peak')?->flag() === true ? $rated->over(M_SQRT2) : $rated;
            $least = $least === null ? $rated : Quantity::min($least, $rated);
        }

        return $least;
    }

    /** The driver a motor hangs on, with all its motors. */
    public static function behind(Survey $survey, string $motor): ?self
    {
        $driver = DrivenMotors::of($survey)->behind($motor);

        return $driver === null ? null : self::of($survey, $driver);
    }

    /**
     * @return iterable<Subject> one a driver that has a stepper on it
     */
    public static function subjects(Survey $survey): iterable
    {
        foreach ($survey->build->fittedThat(Ability::FeedsPhases) as $ref => $fitted) {
            $driven = self::of($survey, $ref);
            if ($driven !== null) {
                yield new Subject('need', $ref, $fitted->need->role, [
                    $ref,
                    ...array_map(static fn (Fitted $m): string => $m->need->ref, $driven->motors),
                ]);
            }
        }
    }
}

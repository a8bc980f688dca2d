<?php

declare(strict_types=1);

namespace Magpie\Core\Electrical\Views;

use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Machine\Spec;
use Magpie\Core\Quantity\Quantity;

/** The same build on a bad day: a load that doubles, supplies that sag to their tolerance, a stop that is pressed. */
final readonly class WhatIf
{
    /**
     * @param  string|null  $doubled  need whose load counts twice
     * @param  bool  $sag  every supply at the lower end of its tolerance
     * @param  list<string>  $pressed  needs of stops that are pressed
     */
    public function __construct(public ?string $doubled = null, public bool $sag = false, public array $pressed = [])
    {
    }

    public function changesNothing(): bool
    {
        return $this->doubled === null && ! $this->sag && $this->pressed === [];
    }

    public function of(Build $build): Build
    {
        if ($this->doubled !== null && isset($build->needs[$this->doubled])) {
            $need = $build->needs[$this->doubled];
            $build = $build->with(['needs' => array_replace($build->needs, [$need->ref => $need->times(2)])]);
        }
        if ($this->sag) {
            $parts = $build->parts;
            foreach ($build->fittedThat(Ability::Converts) as $fitted) {
                $parts[$fitted->part->ref] = self::sagged($fitted);
            }
            $build = $build->with(['parts' => $parts]);
        }
        foreach ($this->pressed as $stop) {
            // A pressed stop is a way that is not there.
            $build =
                $build->fitted($stop)?->part->can(Ability::Stops) === true ? $build->choosing($stop, null) : $build;
        }

        return $build;
    }

    private static function sagged(Fitted $fitted): \Magpie\Core\Machine\Part
    {
        $volts = $fitted->part->spec('output_voltage');
        $off = $fitted->part->spec('voltage_tolerance')?->nominal() ?? ($volts->tolerance ?? Quantity::ratio(0.05));
        $held = $volts?->nominal();

        return $volts === null || $held === null
            ? $fitted->part
            : $fitted->part->reading(
                new Spec(
                    'output_voltage',
                    $held->times(Quantity::ratio(1)->minus($off)),
                    $volts->evidence,
                    $volts->source,
                ),
            );
    }
}

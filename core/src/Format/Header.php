<?php

declare(strict_types=1);

namespace Magpie\Core\Format;

use Magpie\Core\Machine\Plan;
use Magpie\Core\Machine\Site;
use Magpie\Core\Quantity\Dimension;
use Magpie\Core\Quantity\Quantity;

/** The two single objects of a build file: `build` (the plan) and `site`. */
final class Header
{
    public static function readPlan(Node $node): Plan
    {
        $currency = $node->currency('currency');
        $plan = new Plan(
            $node->text('name', 120),
            $node->text('kind', 60),
            $currency,
            $node->optionalOneOf('units', Plan::UNIT_SYSTEMS) ?? 'metric',
            $node->optionalText('purpose', 2000),
            $node->optionalMoney('budget', $currency),
            $node->optionalQuantity('contingency', Dimension::Ratio),
            $node->optionalQuantity('weekly', Dimension::Time),
            $node->optionalQuantity('pace', Dimension::Ratio),
        );
        if ($plan->pace?->isPositive() === false) {
            $node->fail('must be larger than nought.', 'pace');
        }
        $node->close();

        return $plan;
    }

    /**
     * @return array<string, mixed>
     */
    public static function writePlan(Plan $plan): array
    {
        return array_filter([
            'name' => $plan->name,
            'kind' => $plan->kind,
            'currency' => $plan->currency,
            'units' => $plan->units,
            'purpose' => $plan->purpose,
            'budget' => $plan->budget?->exactAmount(),
            'contingency' => $plan->contingency?->text(),
            'weekly' => $plan->weekly?->text(),
            'pace' => $plan->pace?->text(),
        ], static fn (mixed $v): bool => $v !== null);
    }

    public static function readSite(Node $node, string $currency): Site
    {
        $site = new Site(
            $node->optionalQuantity('mains_voltage', Dimension::Voltage),
            $node->optionalQuantity('mains_frequency', Dimension::Frequency),
            $node->optionalQuantity('outlet', Dimension::Current),
            $node->optionalQuantity('ambient', Dimension::Temperature, signed: true),
            $node->optionalFlag('residual_current_device'),
            $node->optionalMoney('tariff', $currency),
            $node->optionalText('notes', 4000),
        );
        $cold = Quantity::of(-60, '°C');
        if ($site->ambient !== null && ($site->ambient->isBelow($cold) || $site->ambient->exceeds(Quantity::of(80, '°C')))) {
            $node->fail("{$site->ambient->text()} is no place to build a machine; air between -60 °C and 80 °C is meant.", 'ambient');
        }
        $node->close();

        return $site;
    }

    /**
     * @return array<string, mixed>
     */
    public static function writeSite(Site $site): array
    {
        return array_filter([
            'mains_voltage' => $site->mainsVoltage?->text(),
            'mains_frequency' => $site->mainsFrequency?->text(),
            'outlet' => $site->outlet?->text(),
            'ambient' => $site->ambient?->text(),
            'residual_current_device' => $site->residualCurrentDevice,
            'tariff' => $site->tariff?->exactAmount(),
            'notes' => $site->notes,
        ], static fn (mixed $v): bool => $v !== null);
    }
}

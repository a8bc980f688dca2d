<?php

declare(strict_types=1);

namespace Magpie\Core\Format;

use Magpie\Core\Machine\Brief;
use Magpie\Core\Machine\Craft;
use Magpie\Core\Machine\CutDirection;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Experience;
use Magpie\Core\Machine\Neighbours;
use Magpie\Core\Machine\Outline;
use Magpie\Core\Machine\Plan;
use Magpie\Core\Machine\Process;
use Magpie\Core\Machine\Site;
use Magpie\Core\Machine\Stage;
use Magpie\Core\Machine\UnitSystem;
use Magpie\Core\Machine\Ventilation;
use Magpie\Core\Machine\Wish;
use Magpie\Core\Quantity\Dimension;
use Magpie\Core\Quantity\Quantity;

/** The single objects of a build file: `build` (the plan), `site` and `brief`. */
final class Header
{
    public static function readPlan(Node $node): Plan
    {
        $currency = $node->currency('currency');
        $plan = new Plan(
            $node->text('name', 120),
            $node->text('kind', 60),
            $currency,
            $node->optionalEnum('units', UnitSystem::class) ?? UnitSystem::Metric,
            $node->optionalText('purpose', 2000),
            $node->optionalMoney('budget', $currency),
            $node->optionalWithin('contingency', Dimension::Ratio, '0 %', '1000 %'),
            $node->optionalWithin('weekly', Dimension::Time, '1 min', '168 h'),
            $node->optionalWithin('pace', Dimension::Ratio, '1 %', '10000 %'),
            $node->optionalEnum('stage', Stage::class),
        );
        $node->close();

        return $plan;
    }

    /**
     * @return array<string, mixed>
     */
    public static function writePlan(Plan $plan): array
    {
        return self::filled([
            'name' => $plan->name,
            'kind' => $plan->kind,
            'currency' => $plan->currency,
            'units' => $plan->units->value,
            'purpose' => $plan->purpose,
            'budget' => $plan->budget?->exactAmount(),
            'contingency' => $plan->contingency?->text(),
            'weekly' => $plan->weekly?->text(),
            'pace' => $plan->pace?->text(),
            'stage' => $plan->stage?->value,
        ]);
    }

    public static function readSite(Node $node, string $currency): Site
    {
        $site = new Site(
            $node->optionalWithin('mains_voltage', Dimension::Voltage, '12 V', '1000 V'),
            $node->optionalWithin('mains_frequency', Dimension::Frequency, '10 Hz', '1000 Hz'),
            $node->optionalWithin('outlet', Dimension::Current, '0.1 A', '1000 A'),
            $node->optionalQuantity('ambient', Dimension::Temperature, signed: true),
            $node->optionalFlag('residual_current_device'),
            $node->optionalMoney('tariff', $currency),
            $node->optionalText('notes', 4000),
            $node->optionalText('country', 60),
            $node->optionalQuantity('other_load', Dimension::Current),
            ...self::lengths($node, 'door', ['width', 'height']),
            ...self::lengths($node, 'bench', ['length', 'width'], ['load' => Dimension::Mass]),
            ...self::lengths($node, 'room', ['length', 'width', 'height']),
            service: $node->optionalQuantity('service', Dimension::Length),
            humidity: $node->optionalWithin('humidity', Dimension::Ratio, '0 %', '100 %'),
            noise: $node->optionalEnum('noise', Neighbours::class),
            ventilation: $node->optionalEnum('ventilation', Ventilation::class),
            ready: self::ready($node->part('ready')),
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
        return self::filled([
            'mains_voltage' => $site->mainsVoltage?->text(),
            'mains_frequency' => $site->mainsFrequency?->text(),
            'outlet' => $site->outlet?->text(),
            'ambient' => $site->ambient?->text(),
            'residual_current_device' => $site->residualCurrentDevice,
            'tariff' => $site->tariff?->exactAmount(),
            'notes' => $site->notes,
            'country' => $site->country,
            'other_load' => $site->otherLoad?->text(),
            'door' => self::filled(['width' => $site->doorWidth?->text(), 'height' => $site->doorHeight?->text()]),
            'bench' => self::filled(['length' => $site->benchLength?->text(), 'width' => $site->benchWidth?->text(), 'load' => $site->benchLoad?->text()]),
            'room' => self::filled(['length' => $site->roomLength?->text(), 'width' => $site->roomWidth?->text(), 'height' => $site->roomHeight?->text()]),
            'service' => $site->service?->text(),
            'humidity' => $site->humidity?->text(),
            'noise' => $site->noise?->value,
            'ventilation' => $site->ventilation?->value,
            'ready' => $site->ready,
        ]);
    }

    /**
     * @return array<string, bool> in the order they are asked for
     */
    private static function ready(Node $node): array
    {
        $ready = array_map($node->optionalFlag(...), array_combine(array_keys(Site::PRECAUTIONS), array_keys(Site::PRECAUTIONS)));
        $node->close();

        return array_filter($ready, is_bool(...));
    }

    public static function readBrief(Node $node, string $currency): Brief
    {
        $size = static function (string $member) use ($node): array {
            $inner = $node->part($member);
            $read = ['x' => $inner->optionalLength('x'), 'y' => $inner->optionalLength('y'), 'z' => $inner->optionalLength('z')];
            $inner->close();

            return $read;
        };
        $outline = $node->part('outline');
        $experience = [];
        foreach ($node->part('experience')->names() as $trade) {
            if (! in_array($trade, Craft::words(), true)) {
                $node->part('experience')->fail('is no trade of a builder; they are '.implode(', ', Craft::words()).'.', $trade);
            }
            $experience[$trade] = $node->part('experience')->enum($trade, Experience::class);
        }
        $brief = new Brief(
            $node->optionalEnum('process', Process::class),
            $node->optionalEnum('wish', Wish::class),
            $node->optionalLength('accuracy'),
            $node->optionalQuantity('margin', Dimension::Length),
            $node->optionalQuantity('flow', Dimension::Flow),
            $node->optionalWithin('duty', Dimension::Ratio, '0 %', '100 %'),
            $node->optionalWithin('weekly', Dimension::Time, '0 h', '168 h'),
            $node->optionalQuantity('spindle_power', Dimension::Power),
            $size('size'),
            $size('kit_size'),
            new Outline(
                $outline->optionalLength('length'),
                $outline->optionalLength('width'),
                $outline->optionalLength('height'),
                $outline->optionalQuantity('mass', Dimension::Mass),
                $outline->optionalEnum('evidence', Evidence::class),
            ),
            $experience,
            $node->optionalText('helper'),
            $node->optionalMoney('hour', $currency),
            $node->optionalText('wanted_by') === null ? null : $node->day('wanted_by'),
            $node->optionalText('notes', 4000),
            $node->optionalEnum('cut_direction', CutDirection::class),
        );
        $outline->close();
        if ($brief->weekly?->exceeds(Quantity::of(168, 'h')) === true) {
            $node->fail('a week has 168 h.', 'weekly');
        }
        $node->close();

        return $brief;
    }

    /**
     * @return array<string, mixed>
     */
    public static function writeBrief(Brief $brief): array
    {
        $outline = $brief->outline;

        return self::filled([
            'process' => $brief->process?->value,
            'wish' => $brief->wish?->value,
            'accuracy' => $brief->accuracy?->text(),
            'margin' => $brief->margin?->text(),
            'flow' => $brief->flow?->text(),
            'cut_direction' => $brief->cutDirection?->value,
            'duty' => $brief->duty?->text(),
            'weekly' => $brief->weekly?->text(),
            'spindle_power' => $brief->spindlePower?->text(),
            'size' => self::filled(array_map(static fn (?Quantity $q): ?string => $q?->text(), $brief->size)),
            'kit_size' => self::filled(array_map(static fn (?Quantity $q): ?string => $q?->text(), $brief->kitSize)),
            'outline' => self::filled([
                'length' => $outline->length?->text(), 'width' => $outline->width?->text(), 'height' => $outline->height?->text(),
                'mass' => $outline->mass?->text(), 'evidence' => $outline->evidence?->value,
            ]),
            'experience' => array_map(static fn (Experience $e): string => $e->value, $brief->experience),
            'helper' => $brief->helper,
            'hour' => $brief->hour?->exactAmount(),
            'wanted_by' => $brief->wantedBy,
            'notes' => $brief->notes,
        ]);
    }

    /**
     * The sizes within a member of a site, none of them nought.
     *
     * @param  list<string>  $names
     * @param  array<string, Dimension>  $others
     * @return list<Quantity|null>
     */
    private static function lengths(Node $node, string $member, array $names, array $others = []): array
    {
        $inner = $node->part($member);
        $read = array_map($inner->optionalLength(...), $names);
        foreach ($others as $name => $dimension) {
            $read[] = $inner->optionalQuantity($name, $dimension);
        }
        $inner->close();

        return $read;
    }

    /**
     * @param  array<string, mixed>  $members
     * @return array<string, mixed> without those that say nothing
     */
    private static function filled(array $members): array
    {
        return array_filter($members, static fn (mixed $v): bool => $v !== null && $v !== []);
    }
}

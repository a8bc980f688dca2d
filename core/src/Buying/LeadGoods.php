<?php

declare(strict_types=1);

namespace Magpie\Core\Buying;

use Magpie\Core\Electrical\Views\Harness;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Fitted;
use Magpie\Core\Machine\Termination;
use Magpie\Core\Quantity\Dimension;
use Magpie\Core\Quantity\Quantity;

/**
 * What leads are made of and nobody writes down: ends to crimp on, housings, wire by the metre, and the tool. Only what no place
 * of the build asks for by name is listed; leads that are made want nothing more.
 *
 * @phpstan-type Good array{what: string, family: string, pieces: int, metres: float|null, part: string|null, why: string}
 */
final class LeadGoods
{
    /** What goes onto an end with a tool, and what that tool is called. */
    private const CRIMPED = [
        'ferrule' => 'ferrule',
        'fork' => 'crimp',
        'ring' => 'crimp',
        'blade' => 'crimp',
        'crimp' => 'crimp',
    ];

    /**
     * @return list<Good>
     */
    public static function missing(Build $build): array
    {
        $names = self::names($build);
        $has = static fn (string $word): bool => str_contains($names, $word);
        $goods = $ends = $metres = [];
        $tools = [];
        foreach ((new Harness($build))->toArray()['rows'] as $row) {
            if ($row['made']) {
                continue;
            }
            foreach ($row['ends'] as $end) {
                $way = $end['termination'];
                if ($way === null || ! isset(self::CRIMPED[$way])) {
                    continue;
                }
                $tools[self::CRIMPED[$way]] = true;
                if ($end['contact'] === null && $end['pieces'] > 0 && ! $has($way)) {
                    $what = $way.($row['size'] === null ? '' : ", {$row['size']}");
                    $ends[$what] = ($ends[$what] ?? 0) + $end['pieces'];
                }
            }
            if ($row['size'] !== null && $row['cut'] !== null && ! $has('wire') && ! $has('cable')) {
                $size = trim("{$row['size']} {$row['stranding']}");
                $metres[$size] =
                    ($metres[$size] ?? 0.0) + Quantity::parse($row['cut'], Dimension::Length)->in('m') * $row['cores'];
            }
        }
        foreach ($ends as $what => $pieces) {
            $goods[] = self::good($what, 'consumable', $pieces, null, null, 'ends of leads');
        }
        foreach (self::housings($build) as $part => $pieces) {
            $goods[] = self::good($build->parts[$part]->name, 'contact_housing', $pieces, null, $part, 'ends of leads');
        }
        foreach ($metres as $size => $length) {
            $length = round($length, 1);
            $goods[] = self::good(
                "Wire, {$size}, {$length} m",
                'consumable',
                1,
                $length,
                null,
                'all leads, as they are cut',
            );
        }
        foreach (array_keys($tools) as $tool) {
            if (! self::hasTool($build, $tool)) {
                $goods[] = self::good(
                    $tool === 'ferrule' ? 'Crimp tool for ferrules' : 'Crimp tool for contacts',
                    'tool',
                    1,
                    null,
                    null,
                    'one serves every build after this',
                );
            }
        }

        return $goods;
    }

    /**
     * @return Good
     */
    private static function good(
        string $what,
        string $family,
        int $pieces,
        ?float $metres,
        ?string $part,
        string $why,
    ): array {
        return [
            'what' => ucfirst($what),
            'family' => $family,
            'pieces' => $pieces,
            'metres' => $metres,
            'part' => $part,
            'why' => $why,
        ];
    }

    /** What the places of the build are filled with, and called, leads and tools apart. */
    private static function names(Build $build): string
    {
        $names = '';
        foreach ($build->fittedThat(Ability::MakesLeads) as $fitted) {
            $names .= " {$fitted->need->role} {$fitted->part->name}";
        }

        return mb_strtolower($names);
    }

    /**
     * Contacts and housings on ends of leads whose part fills no place.
     *
     * @return array<string, int> pieces by part
     */
    private static function housings(Build $build): array
    {
        $placed = [];
        foreach ($build->needs as $need) {
            $placed[$need->choice ?? ''] = true;
        }
        $pieces = [];
        foreach ($build->leads as $lead) {
            foreach ($lead->made ? [] : $lead->ends as $end) {
                if (
                    $end->contact !== null &&
                    ! isset($placed[$end->contact]) &&
                    $end->termination !== Termination::Moulded
                ) {
                    $pieces[$end->contact] = ($pieces[$end->contact] ?? 0) + 1;
                }
            }
        }

        return $pieces;
    }

    private static function hasTool(Build $build, string $for): bool
    {
        foreach ($build->fittedThat(Ability::StaysInShop) as $fitted) {
            if (self::isTool($fitted, $for)) {
                return true;
            }
        }

        return false;
    }

    private static function isTool(Fitted $fitted, string $for): bool
    {
        $name = mb_strtolower("{$fitted->need->role} {$fitted->part->name}");

        return str_contains($name, $for === 'ferrule' ? 'ferrule' : 'crimp');
    }
}

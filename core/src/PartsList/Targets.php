<?php

declare(strict_types=1);

namespace Magpie\Core\PartsList;

use Magpie\Core\Families\Catalogue;

/**
 * What a column of a parts list can mean, and the headings people give it.
 */
final class Targets
{
    /** Columns that are about the line, with the headings that mean them. */
    private const LINE = [
        'ref' => ['ref', 'reference', 'id', 'short name', 'tag', 'designator'],
        'role' => ['role', 'used for', 'purpose', 'function', 'need', 'where'],
        'name' => ['name', 'part', 'part name', 'item', 'description', 'component', 'article', 'title'],
        'family' => ['family', 'category', 'type', 'kind of part', 'group', 'class'],
        'quantity' => ['quantity', 'qty', 'count', 'pcs', 'pieces', 'amount', 'no', 'number', 'q'],
        'spares' => ['spares', 'spare'],
        'owned' => ['owned', 'in stock', 'have', 'on hand'],
        'price' => ['price', 'unit price', 'cost', 'price each', 'each', 'unit cost'],
        'currency' => ['currency', 'cur'],
        'supplier' => ['supplier', 'vendor', 'shop', 'seller', 'source', 'from'],
        'pack' => ['pack', 'pack size', 'per pack'],
        'notes' => ['notes', 'note', 'comment', 'comments', 'remarks'],
    ];

    /** Spec headings that mean a different key on each family's sheet; the first the sheet has is taken. */
    private const SPECS = [
        'voltage' => [
            ['voltage', 'volts', 'v', 'supply voltage', 'u'],
            ['output_voltage', 'rated_voltage', 'max_voltage', 'voltage_rating'],
        ],
        'current' => [
            ['current', 'amps', 'a', 'ampere', 'max current', 'i'],
            ['rated_current', 'continuous_current', 'own_current', 'contact_rating'],
        ],
        'power' => [['power', 'watts', 'wattage', 'w', 'p'], ['rated_power']],
        'torque' => [['torque', 'holding torque'], ['holding_torque', 'rated_torque']],
        'size' => [
            ['size', 'gauge', 'awg', 'cross section', 'cross-section', 'conductor'],
            ['size', 'frame_size', 'series'],
        ],
        'length' => [['length', 'len', 'l'], ['length', 'body_length']],
        'diameter' => [['diameter', 'dia', 'd'], ['diameter', 'shaft_diameter', 'outer_diameter', 'bore']],
        'thickness' => [['thickness', 't'], ['thickness']],
        'width' => [['width', 'w mm'], ['width', 'body_width']],
        'mass' => [['mass', 'weight'], ['mass']],
        'thread' => [['thread', 'm'], ['thread']],
        'material' => [['material', 'mat'], ['material']],
        'resistance' => [
            ['resistance', 'ohms', 'r'],
            ['phase_resistance', 'cold_resistance', 'resistance_25', 'on_resistance'],
        ],
        'inductance' => [['inductance'], ['inductance']],
    ];

    /**
     * Everything a column may be mapped to.
     *
     * @return array<string, string> target → label
     */
    public static function all(): array
    {
        $targets = [];
        foreach (array_keys(self::LINE) as $line) {
            $targets[$line] = ucfirst($line);
        }
        foreach (array_keys(self::SPECS) as $spec) {
            $targets["spec:{$spec}"] = ucfirst($spec);
        }
        foreach (self::sheetKeys() as $key => $label) {
            $targets["spec:{$key}"] ??= $label;
        }

        return $targets;
    }

    /**
     * The target a heading most likely means, and the unit it gives in brackets, if any.
     *
     * @return array{string|null, string|null}
     */
    public static function guess(string $heading): array
    {
        $unit = preg_match('/[(\[]([^)\]]+)[)\]]\s*$/u', $heading, $m) === 1 ? trim($m[1]) : null;
        $plain = trim((string) preg_replace('/[(\[].*$/u', '', $heading));
        $folded = mb_strtolower(trim((string) preg_replace('/[\s_\-.]+/u', ' ', $plain)));
        $key = str_replace(' ', '_', $folded);
        if (isset(self::sheetKeys()[$key]) && ! isset(self::LINE[$key])) {
            return ["spec:{$key}", $unit];
        }
        foreach (self::LINE as $target => $headings) {
            if (in_array($folded, $headings, true)) {
                return [$target, $unit];
            }
        }
        foreach (self::SPECS as $target => [$headings]) {
            if (in_array($folded, $headings, true)) {
                return ["spec:{$target}", $unit];
            }
        }
        foreach (self::sheetKeys() as $specKey => $label) {
            if ($folded === mb_strtolower($label)) {
                return ["spec:{$specKey}", $unit];
            }
        }

        return [null, $unit];
    }

    /**
     * Keys of a family's sheet that a spec target may mean, best first.
     *
     * @return list<string>
     */
    public static function keysOf(string $target): array
    {
        return isset(self::SPECS[$target])
            ? array_values(array_unique([...self::SPECS[$target][1], $target]))
            : [$target];
    }

    /**
     * @return array<string, string>
     */
    private static function sheetKeys(): array
    {
        static $keys = null;
        if ($keys === null) {
            $keys = [];
            foreach (Catalogue::standard()->all() as $family) {
                foreach ($family->sheet() as $field) {
                    $keys[$field->key] ??= $field->label;
                }
            }
        }

        return $keys;
    }
}

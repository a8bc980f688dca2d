<?php

declare(strict_types=1);

namespace Magpie\Core\PartsList;

use Closure;
use Magpie\Core\Families\Catalogue;
use Magpie\Core\Format\CannotReadBuildFile;
use Magpie\Core\Format\Context;
use Magpie\Core\Format\Node;
use Magpie\Core\Format\Sections\Needs;
use Magpie\Core\Format\Sections\Parts;
use Magpie\Core\Machine\Doubts;
use Magpie\Core\Machine\Family;
use Magpie\Core\Machine\FieldKind;
use Magpie\Core\Machine\Part;
use Magpie\Core\Machine\Spec;
use Magpie\Core\Machine\SpecField;
use Magpie\Core\Quantity\Bounds;
use Magpie\Core\Quantity\Dimension;
use Magpie\Core\Quantity\Exception\CannotReadQuantity;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Quantity\Range;

/**
 * Reads lines of a parts list by a mapping. A cell that cannot be read is left out and named; it never costs the line,
 * and a line that cannot be taken never costs the others.
 */
final readonly class RowReader
{
    private const MOST_OWNED = 1_000_000;

    private const MOST_IN_PACK = 100_000;

    private const SYMBOLS = ['£' => 'GBP', '€' => 'EUR', '$' => 'USD', '¥' => 'JPY'];

    /**
     * @param  Closure(string): ?Part|null  $shelf  the part of the workshop's library that has this name
     */
    public function __construct(
        private Mapping $mapping,
        private Catalogue $catalogue,
        private ?Closure $shelf = null,
    ) {
    }

    /**
     * @param  int  $line  its number in the file, for people
     * @param  list<string|null>  $cells
     */
    public function read(int $line, array $cells): ReadRow
    {
        $problems = [];
        $given = $this->given($cells);
        $name = $given['name'][1] ?? ($given['role'][1] ?? null);
        if ($name === null) {
            return $this->refused($line, $given['name'][0] ?? null, 'has no name.');
        }
        if (mb_strlen($name) > 200) {
            return $this->refused($line, $given['name'][0] ?? null, 'has a name longer than 200 characters.');
        }
        $kept = $this->shelf === null ? null : ($this->shelf)($name);
        $kind = $this->family($line, $given, $name, $kept);
        if ($kind === null) {
            return $this->refused(
                $line,
                $given['family'][0] ?? null,
                'does not say what kind of part it is; choose a family for such lines.',
            );
        }
        $quantity = $this->count($given['quantity'] ?? null, 1);
        if ($quantity === null || $quantity < 1 || $quantity > self::MOST_IN_PACK) {
            return $this->refused(
                $line,
                $given['quantity'][0] ?? null,
                sprintf('quantity "%s" is not a whole number above nought.', $given['quantity'][1] ?? ''),
            );
        }
        [$family, $sure] = $kind;
        $part = $this->part($family, $name, $given, $kept?->family === $family ? $kept : null, $problems);
        $owned = $this->owned($given['owned'] ?? null, $problems);
        $need = [
            'role' => mb_substr($given['role'][1] ?? $name, 0, 200),
            'quantity' => $quantity,
            'spares' => $this->spares($given['spares'] ?? null, $problems),
            'owned' => $owned,
            'ref' => isset($given['ref']) ? $part->ref : null,
        ];
        $offer = $this->offer($given, $problems);
        $why = $this->unreadable($part, $need);

        return $why === null
            ? new ReadRow($line, $part, $need, $offer, $problems, Doubts::about($part), $sure, $part->library)
            : $this->refused($line, null, $why);
    }

    /**
     * @param  list<string|null>  $cells
     * @return array<string, array{int, string}> what is said, by what the mapping takes it for: its column, and its text
     */
    private function given(array $cells): array
    {
        $given = [];
        foreach ($this->mapping->targets as $column => $target) {
            $text = trim((string) ($cells[$column] ?? ''));
            // An apostrophe before a formula sign is how exports keep spreadsheets from running it.
            $text = (string) preg_replace("/^'(?=[=+\\-@\s＝＋－＠])/u", '', $text);
            $text = (string) preg_replace(Node::CONTROLS, '', $text);
            if ($text !== '') {
                $given[$target] = [$column, $text];
            }
        }

        return $given;
    }

    /**
     * What the list says of it goes before what the library keeps of it.
     *
     * @param  array<string, array{int, string}>  $given
     * @param  Part|null  $kept  the library's, of the same family
     * @param  list<array{column: int|null, reason: string}>  $problems
     */
    private function part(Family $family, string $name, array $given, ?Part $kept, array &$problems): Part
    {
        return new Part(
            self::ref($given['ref'][1] ?? $name),
            $family,
            $name,
            $this->specs($family, $given, $problems) + ($kept->specs ?? []),
            $kept->ownPorts ?? [],
            isset($given['notes']) ? mb_substr($given['notes'][1], 0, 4000) : $kept?->notes,
            $kept?->ref,
        );
    }

    /**
     * @param  array{int, string}|null  $cell
     * @param  list<array{column: int|null, reason: string}>  $problems
     */
    private function owned(?array $cell, array &$problems): int
    {
        $owned = $this->count($cell, 0);
        if ($owned === null || $owned > self::MOST_OWNED) {
            $problems[] = [
                'column' => $cell[0] ?? null,
                'reason' => 'owned is not a whole number from 0 to '.self::MOST_OWNED.'.',
            ];

            return 0;
        }

        return $owned;
    }

    /**
     * A line is taken only as a build file would read it back; why it would not.
     *
     * @param  array{role: string, quantity: int, spares: string|null, owned: int, ref: string|null}  $need
     */
    private function unreadable(Part $part, array $need): ?string
    {
        $context = new Context($this->catalogue, $this->mapping->currency);
        try {
            (new Parts)->read(new Node((new Parts)->write($part)), $context);
            (new Needs)->read(
                new Node(
                    array_filter(
                        ['ref' => $part->ref, 'family' => $part->family->key()] + $need,
                        static fn (mixed $v): bool => $v !== null,
                    ),
                ),
                $context,
            );
        } catch (CannotReadBuildFile $e) {
            return "cannot be taken: {$e->reason}";
        }

        return null;
    }

    /** A short name made of what people call it. */
    public static function ref(string $text): string
    {
        $plain = (string) preg_replace(
            '/[^A-Za-z0-9_]+/',
            '-',
            strtr($text, ['×' => 'x', 'µ' => 'u', '²' => '2', 'Ω' => 'Ohm']),
        );

        return Node::named(trim(substr(trim($plain, '-_'), 0, 48), '-_') ?: 'part');
    }

    /**
     * What was said of this line, what the library has under its name, what its family column says, what its name tells,
     * or what such lines are taken for.
     *
     * @param  array<string, array{int, string}>  $given
     * @return array{Family, bool}|null it, and whether it is sure
     */
    private function family(int $line, array $given, string $name, ?Part $kept): ?array
    {
        $said = $this->catalogue->find($this->mapping->families[$line] ?? '') ?? $kept?->family;
        if ($said !== null) {
            return [$said, true];
        }
        $guess = isset($given['family']) ? FamilyGuess::of($given['family'][1], $name) : FamilyGuess::of($name);
        if ($guess !== null) {
            return [$guess->family, $guess->sure];
        }
        $other = $this->catalogue->find($this->mapping->family ?? '');

        return $other === null ? null : [$other, true];
    }

    /**
     * @param  array{int, string}|null  $cell
     */
    private function count(?array $cell, int $default): ?int
    {
        if ($cell === null) {
            return $default;
        }

        return preg_match('/^(\d{1,9})(?:\.0+)?\s*(?:x|pcs?|pieces?|off)?\.?$/i', $cell[1], $m) === 1
            ? (int) $m[1]
            : null;
    }

    /**
     * @param  array{int, string}|null  $cell
     * @param  list<array{column: int|null, reason: string}>  $problems
     */
    private function spares(?array $cell, array &$problems): ?string
    {
        if ($cell === null) {
            return null;
        }
        try {
            $spares = Quantity::parse($cell[1], Dimension::Ratio);
            $why = Bounds::outside($spares, Quantity::ratio(0), Quantity::ratio(10));
        } catch (CannotReadQuantity $e) {
            $why = $e->getMessage();
        }
        if ($why !== null) {
            $problems[] = ['column' => $cell[0], 'reason' => "spares: {$why}"];

            return null;
        }

        return $spares->text();
    }

    /**
     * @param  array<string, array{int, string}>  $given
     * @param  list<array{column: int|null, reason: string}>  $problems
     * @return array<string, Spec>
     */
    private function specs(Family $family, array $given, array &$problems): array
    {
        $specs = [];
        foreach ($given as $target => [$column, $text]) {
            if (! str_starts_with($target, 'spec:')) {
                continue;
            }
            $field = $this->field($family, substr($target, 5));
            if ($field === null) {
                $problems[] = [
                    'column' => $column,
                    'reason' => "a {$family->title()} has no spec \"".(Targets::all()[$target] ?? $target).'".',
                ];

                continue;
            }
            try {
                $specs[$field->key] ??= new Spec(
                    $field->key,
                    $this->value($field, $text, $this->mapping->units[$column] ?? null),
                    $this->mapping->evidence,
                );
            } catch (CannotReadQuantity $e) {
                $problems[] = ['column' => $column, 'reason' => "{$field->label}: {$e->getMessage()}"];
            } catch (UnreadableCell $e) {
                $problems[] = ['column' => $column, 'reason' => $e->getMessage()];
            }
        }

        return $specs;
    }

    private function field(Family $family, string $target): ?SpecField
    {
        foreach (Targets::keysOf($target) as $key) {
            if ($family->field($key) !== null) {
                return $family->field($key);
            }
        }

        return null;
    }

    /**
     * @throws CannotReadQuantity
     * @throws UnreadableCell
     */
    private function value(SpecField $field, string $text, ?string $unit): Quantity|Range|string|bool
    {
        if ($field->kind === FieldKind::Flag) {
            return match (mb_strtolower($text)) {
                'yes', 'y', 'true', '1', 'x' => true,
                'no', 'n', 'false', '0' => false,
                default => throw UnreadableCell::because("{$field->label}: \"{$text}\" is neither yes nor no."),
            };
        }
        if ($field->kind === FieldKind::Choice) {
            foreach ($field->choices as $choice) {
                if (mb_strtolower($choice) === mb_strtolower($text)) {
                    return $choice;
                }
            }
            throw UnreadableCell::because(
                "{$field->label}: \"{$text}\" is not one of ".implode(', ', $field->choices).'.',
            );
        }
        if ($field->dimension === null) {
            return mb_substr($text, 0, 200);
        }
        $value =
            $field->kind === FieldKind::Range
                ? Range::parse($text, $field->dimension, $unit)
                : Quantity::parse($text, $field->dimension, $unit);
        $why = $field->refusal($value);

        return $why === null ? $value : throw UnreadableCell::because($why);
    }

    /**
     * @param  array<string, array{int, string}>  $given
     * @param  list<array{column: int|null, reason: string}>  $problems
     * @return array{price: string, currency: string, supplier: string, pack: int}|null
     */
    private function offer(array $given, array &$problems): ?array
    {
        if (! isset($given['price'])) {
            return null;
        }
        [$column, $text] = $given['price'];
        $currency = mb_strtoupper($given['currency'][1] ?? '') ?: null;
        foreach (self::SYMBOLS as $symbol => $code) {
            if (str_contains($text, $symbol)) {
                $currency ??= $code;
                $text = str_replace($symbol, '', $text);
            }
        }
        if (preg_match('/\b([A-Z]{3})\b/', $text, $m) === 1) {
            $currency ??= $m[1];
            $text = str_replace($m[1], '', $text);
        }
        $digits = (string) preg_replace("/[\s']/u", '', $text);
        $digits =
            preg_match('/^\d+,\d{1,2}$/', $digits) === 1
                ? str_replace(',', '.', $digits)
                : (string) preg_replace('/,(?=\d{3}(\D|$))/', '', $digits);
        if (preg_match('/^\d{1,9}(\.\d{1,6})?$/', $digits) !== 1) {
            $problems[] = [
                'column' => $column,
                'reason' => "price \"{$given['price'][1]}\" is not an amount of money.",
            ];

            return null;
        }
        $currency ??= $this->mapping->currency;
        if (preg_match('/^[A-Z]{3}$/', $currency) !== 1) {
            $problems[] = [
                'column' => $given['currency'][0] ?? $column,
                'reason' => "\"{$currency}\" is not a currency code.",
            ];

            return null;
        }
        $pack = $this->count($given['pack'] ?? null, 1);
        if ($pack === null || $pack < 1 || $pack > self::MOST_IN_PACK) {
            $problems[] = [
                'column' => $given['pack'][0] ?? null,
                'reason' => 'pack is not a whole number from 1 to '.self::MOST_IN_PACK.'.',
            ];
            $pack = 1;
        }

        return [
            'price' => $digits,
            'currency' => $currency,
            'supplier' => mb_substr($given['supplier'][1] ?? $this->mapping->supplier, 0, 200),
            'pack' => $pack,
        ];
    }

    private function refused(int $line, ?int $column, string $reason): ReadRow
    {
        return new ReadRow($line, null, null, null, [['column' => $column, 'reason' => "line {$line} {$reason}"]], []);
    }
}

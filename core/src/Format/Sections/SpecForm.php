<?php

declare(strict_types=1);

namespace Magpie\Core\Format\Sections;

use Magpie\Core\Format\Node;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\FieldKind;
use Magpie\Core\Machine\Spec;
use Magpie\Core\Machine\SpecField;
use Magpie\Core\Quantity\Dimension;
use Magpie\Core\Quantity\Exception\CannotReadQuantity;
use Magpie\Core\Quantity\Quantity;
use Magpie\Core\Quantity\Range;

/** A spec: `"24 V"` for short (then it rests on nothing: assumed), or an object with its evidence. */
final class SpecForm
{
    /** Claims kept beside the one that counts, at the most. */
    private const RIVALS = 8;

    public static function read(Node $node, SpecField $field, bool $rival = false): Spec
    {
        if (! is_array($node->raw())) {
            return new Spec($field->key, self::value($node, $field), Evidence::Assumed);
        }
        $spec = new Spec(
            $field->key,
            self::value($node->member('value'), $field),
            $node->optionalEnum('evidence', Evidence::class) ?? Evidence::Assumed,
            $node->optionalText('source'),
            $node->optionalWithin('tolerance', Dimension::Ratio, '0 %', '100 %'),
            $node->optionalFlag('confirmed') ?? false,
            $rival ? [] : self::rivals($node, $field),
        );
        $node->close();

        return $spec;
    }

    /**
     * @return list<Spec>
     */
    private static function rivals(Node $node, SpecField $field): array
    {
        $items = $node->items('rivals');
        if (count($items) > self::RIVALS) {
            $node->fail('keeps at most '.self::RIVALS.' other claims.', 'rivals');
        }

        return array_map(static fn (Node $item): Spec => self::read($item, $field, true), $items);
    }

    /**
     * @return array<string, mixed>
     */
    public static function write(Spec $spec): array
    {
        return array_filter(
            [
                'value' => match (true) {
                    $spec->value instanceof Quantity, $spec->value instanceof Range => $spec->value->text(),
                    default => $spec->value,
                },
                'evidence' => $spec->evidence->value,
                'source' => $spec->source,
                'tolerance' => $spec->tolerance?->text(),
                'confirmed' => $spec->confirmed ? true : null,
                'rivals' => array_map(self::write(...), $spec->rivals),
            ],
            static fn (mixed $v): bool => $v !== null && $v !== [],
        );
    }

    private static function value(Node $node, SpecField $field): Quantity|Range|string|bool
    {
        $value = $node->raw();
        if ($field->kind === FieldKind::Flag) {
            return is_bool($value) ? $value : $node->fail("{$field->label} is a yes-or-no: true or false.");
        }
        if (! is_string($value) || trim($value) === '') {
            $node->fail("{$field->label} must be a text, such as \"12 {$field->unit}\".");
        }
        if ($field->kind === FieldKind::Choice && ! in_array($value, $field->choices, true)) {
            $node->fail(sprintf('%s: "%s" is not one of %s.', $field->label, $value, implode(', ', $field->choices)));
        }
        if ($field->dimension === null) {
            return mb_strlen($value) <= 200 ? $value : $node->fail("{$field->label} is longer than 200 characters.");
        }
        try {
            $read =
                $field->kind === FieldKind::Range
                    ? Range::parse($value, $field->dimension)
                    : Quantity::parse($value, $field->dimension);
        } catch (CannotReadQuantity $e) {
            $node->fail("{$field->label}: {$e->getMessage()}");
        }
        $why = $node->isNew() ? $field->refusal($read) : null;

        return $why === null ? $read : $node->fail($why);
    }
}

<?php

declare(strict_types=1);

namespace Magpie\Core\Planning;

use Magpie\Core\Machine\Build;
use Magpie\Core\Machine\Work\Step;
use Magpie\Core\Machine\Work\StepState;

/**
 * Steps taken from the model, held against the model as it is now: three ways, since each keeps what it was taken as. What only
 * the model changed follows it; what only the builder changed stays; what both changed differently is for the builder to say. What is
 * done stays as it was done, and is named where the model has moved on.
 *
 * @phpstan-type Field array{field: string, own: mixed, model: mixed, choice: string}
 * @phpstan-type Row array{key: string, ref: string|null, state: string, base: string, fields: list<Field>}
 */
final readonly class Renewal
{
    /** What of a step follows from the model. */
    private const FIELDS = ['title', 'uses', 'tools', 'notes', 'check'];

    public function __construct(private Build $build, private Derivation $derived)
    {
    }

    /**
     * @return array{rows: list<Row>, gone: list<array{ref: string, title: string, is_done: bool}>} a row's state is new, same,
     *     changed, disputed, merged (another step does it) or void (done, and the model wants something else); a field's
     *     choice is model, own or ask
     */
    public function toArray(): array
    {
        $taken = $merged = [];
        foreach ($this->build->steps as $step) {
            if ($step->derived !== null) {
                $taken[$step->derived] = $step;
            }
            $merged += array_fill_keys($step->also, $step);
        }
        $rows = [];
        foreach ($this->derived->steps as $draft) {
            $into = $merged[$draft->key] ?? null;
            $rows[] = $into === null ? $this->row($draft, $taken[$draft->key] ?? null) : self::merged($draft, $into);
            unset($taken[$draft->key]);
        }

        return [
            'rows' => $rows,
            'gone' => array_values(
                array_map(
                    static fn (Step $s): array => [
                        'ref' => $s->ref,
                        'title' => $s->title,
                        'is_done' => $s->state === StepState::Done,
                    ],
                    $taken,
                ),
            ),
        ];
    }

    /** What a step was taken as, to be held against the model later. */
    private static function base(StepDraft $draft): string
    {
        return (string) json_encode(self::ofDraft($draft), JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES);
    }

    /**
     * @return Row
     */
    private static function merged(StepDraft $draft, Step $into): array
    {
        return [
            'key' => $draft->key,
            'ref' => $into->ref,
            'state' => 'merged',
            'base' => self::base($draft),
            'fields' => [],
        ];
    }

    /**
     * @return Row
     */
    private function row(StepDraft $draft, ?Step $step): array
    {
        $model = self::ofDraft($draft);
        $base = self::base($draft);
        if ($step === null) {
            return ['key' => $draft->key, 'ref' => null, 'state' => 'new', 'base' => $base, 'fields' => []];
        }
        $fields = $this->fields($step, $model);
        $choices = array_column($fields, 'choice');

        return [
            'key' => $draft->key,
            'ref' => $step->ref,
            'state' => match (true) {
                $fields === [] => 'same',
                $step->state === StepState::Done => $this->isVoid($fields) ? 'void' : 'same',
                in_array('ask', $choices, true) => 'disputed',
                in_array('model', $choices, true) => 'changed',
                default => 'same',
            },
            'base' => $base,
            'fields' => $fields,
        ];
    }

    /**
     * Pieces or a reading the model wants otherwise than they were done; words are no reason to undo anything.
     *
     * @param  list<Field>  $fields
     */
    private function isVoid(array $fields): bool
    {
        foreach ($fields as $field) {
            if ($field['choice'] !== 'own' && in_array($field['field'], ['uses', 'check'], true)) {
                return true;
            }
        }

        return false;
    }

    /**
     * @param  array<string, mixed>  $model
     * @return list<Field> those in which step and model differ
     */
    private function fields(Step $step, array $model): array
    {
        $own = self::ofStep($step);
        $base = $step->base === null ? null : json_decode($step->base, true);
        $fields = [];
        foreach (self::FIELDS as $field) {
            if (self::isSame($own[$field], $model[$field])) {
                continue;
            }
            $was = is_array($base) ? $base[$field] ?? null : null;
            $fields[] = [
                'field' => $field,
                'own' => $own[$field],
                'model' => $model[$field],
                'choice' => match (true) {
                    // Taken before it was kept what it was taken as: nobody knows who changed it.
                    ! is_array($base) => 'ask',
                    self::isSame($own[$field], $was) => 'model',
                    self::isSame($model[$field], $was) => 'own',
                    default => 'ask',
                },
            ];
        }

        return $fields;
    }

    /**
     * @return array{title: string, uses: array<string, int>|null, tools: list<string>|null, notes: string|null,
     *     check: array<string, string>|null}
     */
    private static function ofDraft(StepDraft $draft): array
    {
        return [
            'title' => mb_substr($draft->title, 0, 200),
            'uses' => $draft->uses ?: null,
            'tools' => $draft->tools ?: null,
            'notes' => $draft->notes === [] ? null : implode("\n", $draft->notes),
            'check' => $draft->check,
        ];
    }

    /**
     * @return array{title: string, uses: array<string, int>|null, tools: list<string>|null, notes: string|null,
     *     check: array<string, string>|null}
     */
    private static function ofStep(Step $step): array
    {
        return [
            'title' => $step->title,
            'uses' => $step->uses ?: null,
            'tools' => $step->tools ?: null,
            'notes' => $step->notes,
            'check' => $step->check === null
                    ? null
                    : [
                        'what' => $step->check->what,
                        'nominal' => $step->check->nominal->text(),
                        'tolerance' => $step->check->tolerance->text(),
                    ],
        ];
    }

    private static function isSame(mixed $one, mixed $other): bool
    {
        if (is_array($one) && is_array($other)) {
            ksort($one);
            ksort($other);
        }

        return $one === $other;
    }
}

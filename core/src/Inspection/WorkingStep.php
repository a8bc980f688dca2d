<?php

declare(strict_types=1);

namespace Magpie\Core\Inspection;

use Magpie\Core\Quantity\Quantity;

/**
 * One line of working: "Current: I = V / R = 24 V / 2 Ω = 12 A".
 */
final readonly class WorkingStep
{
    /** Figures of a working, more than a sentence has: it is there to be followed. */
    private const FIGURES = 5;

    /**
     * @param  string  $formula  "I = V / R"; empty for a plain remark
     * @param  array<string, Quantity>  $symbols  numbers put in for the symbols on the right
     */
    public function __construct(
        public string $label,
        public string $formula = '',
        public array $symbols = [],
        public ?Quantity $result = null,
    ) {
    }

    /** The right-hand side with its numbers: "24 V / 2 Ω". */
    public function substituted(): string
    {
        $right = explode(' = ', $this->formula, 2)[1] ?? '';
        $symbols = $this->symbols;

        return (string) preg_replace_callback(
            '/([\p{L}][\p{L}\d_]*)([²³⁴]?)/u',
            static function (array $m) use ($symbols): string {
                $value = isset($symbols[$m[1]]) ? $symbols[$m[1]]->shown(self::FIGURES) : null;

                return match (true) {
                    $value === null => $m[0],
                    $m[2] !== '' => "({$value}){$m[2]}",
                    default => $value,
                };
            },
            $right,
        );
    }

    public function text(): string
    {
        if ($this->formula === '') {
            return $this->label;
        }
        $substituted = $this->substituted();
        $right = explode(' = ', $this->formula, 2)[1] ?? '';
        $result = $this->result === null ? '' : $this->result->shown(self::FIGURES);

        return $this->label.
            ': '.
            $this->formula.
            (in_array($substituted, [$right, $result], true) ? '' : ' = '.$substituted).
            ($result === '' ? '' : ' = '.$result);
    }

    /**
     * @return array{label: string, formula: string, substituted: string, result: string|null}
     */
    public function toArray(): array
    {
        return [
            'label' => $this->label,
            'formula' => $this->formula,
            'substituted' => $this->substituted(),
            'result' => $this->result === null ? null : $this->result->shown(self::FIGURES),
        ];
    }
}

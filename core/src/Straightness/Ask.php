<?php

declare(strict_types=1);

namespace Magpie\Core\Straightness;

use Magpie\Core\Quantity\Dimension;

/** One thing an alignment is worked from. */
final readonly class Ask
{
    /**
     * @param  bool  $row  several figures, "0.00 0.02 0.05 mm"
     * @param  string  $example  as it may be typed
     */
    public function __construct(
        public string $key,
        public string $label,
        public string $example,
        public bool $row = false,
        public bool $needed = true,
        public Dimension $dimension = Dimension::Length,
    ) {
    }

    /**
     * @return array{key: string, label: string, example: string, row: bool, needed: bool}
     */
    public function toArray(): array
    {
        return [
            'key' => $this->key,
            'label' => $this->label,
            'example' => $this->example,
            'row' => $this->row,
            'needed' => $this->needed,
        ];
    }
}

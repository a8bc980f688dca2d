<?php

declare(strict_types=1);

namespace App\Errands;

use App\Models\Build;
use App\Models\Errand;

/** How one kind of errand is done. */
interface Work
{
    /**
     * What is given with it, as Laravel's rules.
     *
     * @return array<string, list<mixed>>
     */
    public function rules(Build $build): array;

    /**
     * @param  string  $brought  path of the file that was given with it
     * @return array<string, mixed>|null what is told; null where a file was made
     *
     * @throws CannotDo when it cannot be done with what was given
     * @throws Stopped when whoever asked wants it no more
     */
    public function do(Errand $errand, Build $build, string $brought, Progress $progress): ?array;
}

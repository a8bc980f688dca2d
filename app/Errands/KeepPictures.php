<?php

declare(strict_types=1);

namespace App\Errands;

use App\Books\Archive;
use App\Builds\Pictures;
use App\Models\Build;
use App\Models\Errand;
use App\Models\User;

/** The pictures of an archive a build came from: each drawn anew, which takes seconds for a large one. */
final class KeepPictures implements Work
{
    public function rules(Build $build): array
    {
        return [];
    }

    public function do(Errand $errand, Build $build, string $brought, Progress $progress): array
    {
        $by = User::query()->find((int) ($errand->given['by'] ?? 0));
        $kept = $left = 0;
        foreach (Archive::photos($brought) as $name => $bytes) {
            // Only what is a picture, and under the name it is spoken of.
            $isNew = Pictures::refusal($bytes) === null && ! $build->photos()->where('name', $name)->exists();
            $isNew && Pictures::keep($build, $name, $bytes, $by) ? $kept++ : $left++;
            $progress->at($kept + $left, (int) ($errand->given['pictures'] ?? 0));
        }

        return ['kept' => $kept, 'left' => $left];
    }
}

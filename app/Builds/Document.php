<?php

declare(strict_types=1);

namespace App\Builds;

use App\Accounts\Access;
use App\Models\Build;
use App\Models\Snapshot;
use App\Models\User;
use Illuminate\Support\Facades\DB;
use Magpie\Core\Assembly\Rules;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Format\CannotReadBuildFile;
use Magpie\Core\Format\Withheld;
use Magpie\Core\Inspection\Inspection;
use Magpie\Core\Inspection\Standing;
use Magpie\Core\Inspection\Survey;
use Magpie\Core\Machine\Build as Machine;
use Throwable;

/**
 * A build as the application works with it: the canonical file, the machine it describes and what is judged of it. Kept
 * as a snapshot of its revision, which is rebuilt from the tables whenever it is missing or old.
 */
final class Document
{
    /** Entries up to which a build is judged while somebody waits; a larger one is judged in the background. */
    private const AT_ONCE = 4_000;

    private ?Machine $machine = null;

    private ?Inspection $inspection = null;

    private ?Standing $standing = null;

    private ?string $text = null;

    /**
     * @param  array<string, mixed>  $data
     * @param  bool  $judged  it was read and judged as it is
     */
    private function __construct(public readonly array $data, public readonly bool $judged = false)
    {
    }

    /** As whoever asks may see it: a visitor by a link sees nobody's name, and prices only where the link shows them. */
    public static function of(Build $build): self
    {
        $whole = self::whole($build);
        $visit = Access::visitor();

        return $visit === null
            ? $whole
            : new self(Withheld::from($whole->data, $visit->money, self::names($build)));
    }

    /**
     * Of those who are of a build: they may stand in what is written of it.
     *
     * @return list<string>
     */
    public static function names(Build $build): array
    {
        return array_values(
            User::query()
                ->whereIn('id', DB::table('memberships')->where('workshop_id', $build->workshop_id)->select('user_id'))
                ->orWhereIn('id', DB::table('build_people')->where('build_id', $build->id)->select('user_id'))
                ->get('name')
                ->map(static fn (User $u): string => $u->name)
                ->all(),
        );
    }

    private static function whole(Build $build): self
    {
        $snapshot = Snapshot::query()->select('revision', 'judged', 'document', 'build_id')->find($build->id);
        if ($snapshot === null || $snapshot->revision !== $build->revision) {
            return new self((new Store($build))->document());
        }

        /** @var array<string, mixed> $data */
        $data = json_decode($snapshot->document, true, 64, JSON_THROW_ON_ERROR);

        return new self($data, $snapshot->judged === $build->revision);
    }

    /**
     * @param  array<string, mixed>  $data  in canonical form
     */
    public static function from(array $data): self
    {
        return new self($data);
    }

    /** As JSON text, as it is kept. */
    public function text(): string
    {
        return $this->text ??= self::json($this->data);
    }

    /** As a build file, also where it cannot be read: nobody is ever locked out of what they wrote. */
    public function file(): string
    {
        return json_encode(
            $this->data,
            JSON_PRETTY_PRINT | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES | JSON_THROW_ON_ERROR,
        )."\n";
    }

    /** @throws CannotReadBuildFile */
    public function machine(): Machine
    {
        return $this->machine ??= BuildFile::build($this->data, kept: true);
    }

    /**
     * @param  (callable(int, int): void)|null  $about  told before each check: how many are done, of how many
     *
     * @throws CannotReadBuildFile
     */
    public function inspection(?callable $about = null): Inspection
    {
        return $this->inspection ??=
            $this->standing?->inspection() ?? Rules::inspector()->inspect($this->machine(), $about);
    }

    /**
     * The same, ready to try edits on.
     *
     * @throws CannotReadBuildFile
     */
    public function standing(): Standing
    {
        return $this->standing ??= Standing::of(Rules::inspector(), $this->machine());
    }

    /**
     * The same laid out, as it was measured.
     *
     * @throws CannotReadBuildFile
     */
    public function survey(): Survey
    {
        return $this->standing?->survey() ?? new Survey(Rules::inspector()->stands($this->machine()));
    }

    /**
     * Why it cannot be read, and where; null when it can.
     *
     * @return array{pointer: string, reason: string}|null
     */
    public function trouble(): ?array
    {
        try {
            $this->machine();
        } catch (CannotReadBuildFile $e) {
            return ['pointer' => $e->pointer, 'reason' => $e->reason];
        } catch (Throwable $e) {
            report($e);

            return ['pointer' => '', 'reason' => 'something in it stops the program: '.lcfirst($e->getMessage())];
        }

        return null;
    }

    public function isLarge(): bool
    {
        return count($this->section('needs')) + count($this->section('leads')) > self::AT_ONCE;
    }

    /**
     * @return array<string, mixed> plan, site or brief in canonical form; empty when nothing of it is said
     */
    public function header(string $name): array
    {
        /** @var array<string, mixed> $header */
        $header = $this->data[$name] ?? [];

        return $header;
    }

    /**
     * @return list<array<string, mixed>&array{ref: string}> entries in canonical form
     */
    public function section(string $name): array
    {
        /** @var list<array<string, mixed>&array{ref: string}> $entries */
        $entries = $this->data[$name] ?? [];

        return $entries;
    }

    public static function json(mixed $data): string
    {
        return json_encode($data, JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES | JSON_THROW_ON_ERROR);
    }
}

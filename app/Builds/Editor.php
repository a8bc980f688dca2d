<?php

declare(strict_types=1);

namespace App\Builds;

use App\Models\Build;
use App\Models\Change;
use App\Models\Edit;
use App\Models\User;
use Closure;
use Illuminate\Support\Facades\DB;
use Magpie\Core\Families\Catalogue;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Format\CannotReadBuildFile;
use Magpie\Core\Format\Context;
use Magpie\Core\Format\Header;
use Magpie\Core\Format\Node;
use Magpie\Core\Format\References;
use Magpie\Core\Format\Sections\Suppliers;
use Magpie\Core\Machine\Build as Machine;
use Magpie\Core\Work\Gate;

/**
 * Applies edits to a build, and takes them back: each in one transaction, recorded, and refused when what it started
 * from has changed since.
 *
 * @phpstan-type Asked array{section: string, ref?: string, create?: array<string, mixed>, delete?: bool,
 *     set?: list<array{path: list<string|int>, to?: mixed, was?: mixed}>}
 */
final class Editor
{
    /** How often a transaction is tried when it and another wait for each other. */
    private const TRIES = 4;

    /** @var array<string, array<string, array<int|string, mixed>>> section → ref → entry */
    private array $entries = [];

    /** @var array<string, array<int|string, mixed>> `build`, `site` and `brief` */
    private array $headers = [];

    /** @var array<string, array{string, string}> section and ref of what this edit touched */
    private array $touched = [];

    /** @var list<array{section: string, ref: string, why: string}> what a reversal left as it is */
    private array $left = [];

    private Store $store;

    /** The build as it was when this edit began. */
    private Document $opened;

    /** Whether it could be read then; what cannot be read is mended entry by entry. */
    private bool $readable = true;

    private ?Document $document = null;

    private ?Judging $judging = null;

    /**
     * @param  int|null  $seen  the revision whose findings whoever edits has before them
     */
    public function __construct(
        private readonly Build $build,
        private readonly ?User $user,
        private readonly ?int $seen = null,
    ) {
    }

    /**
     * @param  string  $key  made up by the client: the same edit sent twice is done once
     * @param  list<Asked>|Closure(Machine): list<Asked>  $changes  see
     * docs/api/openapi.json,
     *                                                                                          Change; or what makes
     * them of the build as it stands once nobody else can change it
     *
     * @throws Conflict
     * @throws CannotEdit
     * @throws CannotReadBuildFile
     */
    public function apply(string $key, string $label, array|Closure $changes): EditResult
    {
        return $this->inOne(function () use ($key, $label, $changes): EditResult|Edit {
            $known = Edit::query()
                ->where(['build_id' => $this->build->id, 'key' => $key])
                ->first();
            $content = is_array($changes) ? hash('sha256', Document::json($changes)) : null;
            if ($known !== null) {
                // The same edit, sent again since its answer was lost; another one under its key would be lost without a word.
                if ($content !== null && $known->content !== null && $known->content !== $content) {
                    throw CannotEdit::at('/key', 'this key was used for another edit already; each edit has a key of its own.');
                }

                return $this->stored($known);
            }
            $this->build->revision++;
            Edit::query()
                ->where(['build_id' => $this->build->id, 'state' => 'undone', 'user_id' => $this->user?->id])
                ->update(['state' => 'dropped']);
            $edit = $this->build->edits()->create([
                'user_id' => $this->user?->id,
                'revision' => $this->build->revision,
                'key' => $key,
                'content' => $content,
                'label' => mb_substr($label, 0, 200),
                'state' => 'done',
                'made_at' => now(),
            ]);
            $planned = array_map(
                $this->change(...),
                $changes instanceof Closure ? $changes($this->opened->machine()) : $changes,
            );
            // Every name must name something before a row is written.
            $this->document = Document::from($this->data());
            $this->judging = $this->judge($this->document);
            $this->passGates($planned);
            $records = [];
            foreach ($planned as [$record, $write]) {
                $records[] = ['edit_id' => $edit->id, 'row' => $write()] + $record;
            }
            $this->store->settle();
            Change::query()->insert(
                array_map(
                    static fn (array $r): array => [
                        'before' => $r['before'] === null ? null : Document::json($r['before']),
                        'after' => $r['after'] === null ? null : Document::json($r['after']),
                    ] + $r,
                    $records,
                ),
            );

            return $edit;
        });
    }

    /**
     * Takes back this user's last edit, or does again what was last taken back: as much of it as nobody has touched
     * since. Null when there is none.
     */
    public function revert(bool $redo): ?EditResult
    {
        $find = function () use ($redo): ?Edit {
            $query = Edit::query()->where(['build_id' => $this->build->id, 'user_id' => $this->user?->id]);

            return $redo
                ? $query->where('state', 'undone')->orderBy('id')->first()
                : $query->where('state', 'done')->orderByDesc('id')->first();
        };

        return $find() === null
            ? null
            : $this->inOne(function () use ($find, $redo): Edit {
                $edit = $find() ?? throw CannotEdit::at('', 'another window has just done that.');
                $this->build->revision++;
                $changes = array_values(
                    $edit
                        ->changes()
                        ->get()
                        ->map(
                            static fn (Change $c): array => [
                                'section' => $c->section,
                                'ref' => $c->ref,
                                'before' => $c->before,
                                'after' => $c->after,
                                'row' => $c->row,
                            ],
                        )
                        ->all(),
                );
                $reversal = new Reversal($this->headers, $this->entries);
                $reversal->plan($redo ? $changes : array_reverse($changes), $redo, $this->readable);
                [$this->headers, $this->entries, $this->left] = [
                    $reversal->headers(),
                    $reversal->entries(),
                    $reversal->left(),
                ];
                $this->carryOut($reversal->steps());
                $edit->update(['state' => $redo ? 'done' : 'undone']);

                return $edit;
            });
    }

    /**
     * @param  Closure(): (Edit|EditResult)  $work  an edit that is now made, or the answer to one that was made before
     */
    private function inOne(Closure $work): EditResult
    {
        return DB::transaction(function () use ($work): EditResult {
            $this->build->revision =
                (int) (DB::table('builds')->where('id', $this->build->id)->lockForUpdate()->value('revision') ??
                    throw CannotEdit::at('', 'the build is gone; somebody deleted it.'));
            [$this->touched, $this->left, $this->document, $this->judging] = [[], [], null, null];
            $this->store = new Store($this->build);
            $this->opened = Document::of($this->build);
            $this->readable = $this->opened->judged || $this->opened->trouble() === null;
            $this->open($this->opened);
            $edit = $work();
            if ($edit instanceof EditResult) {
                return $edit;
            }
            $document = $this->document ?? Document::from($this->data());
            $judging = $this->judging ?? $this->judge($document);
            DB::table('builds')
                ->where('id', $this->build->id)
                ->update(['revision' => $this->build->revision, 'updated_at' => now()]);

            return new EditResult($edit, $this->build->revision, $this->touched(), $judging, $this->left);
        }, self::TRIES);
    }

    /**
     * Reads and judges what the build becomes.
     *
     * @throws CannotReadBuildFile when it could be read before and can no longer be
     */
    private function judge(Document $document): Judging
    {
        $judging = Judging::of($this->build, $document, $this->seen);
        if ($this->readable && $judging->unreadable) {
            throw CannotReadBuildFile::at($judging->trouble['pointer'] ?? '', $judging->trouble['reason'] ?? '');
        }

        return $judging;
    }

    private function stored(Edit $edit): EditResult
    {
        foreach ($edit->changes()->get(['section', 'ref']) as $change) {
            $this->touch($change->section, $change->ref);
        }

        return new EditResult(
            $edit,
            $this->build->revision,
            $this->touched(),
            Judging::of($this->build, $this->opened, $this->seen),
        );
    }

    private function touch(string $section, string $ref): void
    {
        $this->touched["{$section}/{$ref}"] = [$section, $ref];
    }

    /**
     * @return list<array{section: string, ref: string, entry: array<int|string, mixed>|null}> entries an edit touched,
     * as they are now
     */
    private function touched(): array
    {
        return array_values(
            array_map(
                fn (array $t): array => ['section' => $t[0], 'ref' => $t[1], 'entry' => $this->current($t[0], $t[1])],
                $this->touched,
            ),
        );
    }

    private function open(Document $document): void
    {
        foreach (array_keys(Schema::headers()) as $header) {
            $this->headers[$header] = $document->header($header);
        }
        foreach (array_keys(BuildFile::sections()) as $section) {
            $this->entries[$section] = array_column($document->section($section), null, 'ref');
        }
    }

    /**
     * @return array<string, mixed>
     */
    private function data(): array
    {
        return Reversal::data($this->headers, $this->entries);
    }

    /**
     * @return array<int|string, mixed>|null
     */
    private function current(string $section, string $ref): ?array
    {
        return $this->headers[$section] ?? ($this->entries[$section][$ref] ?? null);
    }

    /**
     * @param  Asked  $change
     * @return array{array{section: string, ref: string, before: array<int|string, mixed>|null,
     *     after: array<int|string, mixed>|null}, Closure(): (int|null)} the record, and how its row is written
     */
    private function change(array $change): array
    {
        $section = $change['section'];
        if (isset($change['create'])) {
            $after = $this->read(
                $section,
                $change['create'],
                is_string($change['create']['ref'] ?? null) ? $change['create']['ref'] : 'new',
            );
            $ref = (string) $after['ref'];
            if (isset($this->entries[$section][$ref])) {
                throw CannotEdit::at("/{$section}/{$ref}/ref", "there is already a \"{$ref}\" among the {$section}.");
            }
            $this->entries[$section][$ref] = $after;
            $this->touch($section, $ref);

            return [
                ['section' => $section, 'ref' => $ref, 'before' => null, 'after' => $after],
                fn (): int => $this->store->insert($section, $after),
            ];
        }
        $ref = $change['ref'] ?? '';
        $before = $this->current($section, $ref);
        if ($before === null) {
            throw new Conflict([['section' => $section, 'ref' => $ref, 'path' => [], 'was' => null, 'now' => null]]);
        }
        if (($change['delete'] ?? false) === true) {
            if ($section === 'readings') {
                // Taken away, it would take with it what it said.
                throw CannotEdit::at("/readings/{$ref}", 'a reading is struck, with a reason, and stays; what was typed just now is undone.');
            }
            $this->remove($section, $ref);

            return [
                ['section' => $section, 'ref' => $ref, 'before' => $before, 'after' => null],
                fn (): int => $this->store->delete($section, $ref),
            ];
        }
        $after = $before;
        $clashes = [];
        foreach ($change['set'] ?? [] as $set) {
            $now = Path::get($before, $set['path']);
            // Two screens that say the same do not contradict one another.
            if (
                array_key_exists('was', $set) &&
                ! $this->isStill($section, $before, $ref, $set['path'], $set['was']) &&
                ! $this->isStill($section, $before, $ref, $set['path'], $set['to'] ?? null)
            ) {
                $clashes[] = [
                    'section' => $section,
                    'ref' => $ref,
                    'path' => $set['path'],
                    'was' => $set['was'],
                    'now' => $now,
                ];
            }
            $after = Path::set($after, $set['path'], $set['to'] ?? null);
        }
        if ($clashes !== []) {
            throw new Conflict($clashes);
        }
        $after = $this->reread($section, $after, $before, $ref);
        $this->replace($section, $ref, $after);

        return [
            ['section' => $section, 'ref' => $ref, 'before' => $before, 'after' => $after],
            fn (): ?int => $this->store($section, $ref, $after, $before),
        ];
    }

    /**
     * Whether a place still holds what somebody saw there, in whatever form they say it: a bench with no network goes on from
     * what it wrote itself, as it was typed.
     *
     * @param  array<int|string, mixed>  $before
     * @param  list<string|int>  $path
     */
    private function isStill(string $section, array $before, string $ref, array $path, mixed $was): bool
    {
        $now = Path::get($before, $path);
        if ($was === $now) {
            return true;
        }
        try {
            return Path::get($this->read($section, Path::set($before, $path, $was), $ref, kept: true), $path) === $now;
        } catch (CannotEdit|CannotReadBuildFile) {
            return false;
        }
    }

    /**
     * Writes what a reversal planned, runs of one kind in few statements.
     *
     * @param  list<array{section: string, ref: string, now: array<int|string, mixed>|null, then: array<int|string,
     *     mixed>|null, row: int|null}>  $steps
     */
    private function carryOut(array $steps): void
    {
        $kind = static fn (array $s): string => $s['section'].
            ($s['now'] === null ? '+' : ($s['then'] === null ? '-' : '='));
        for ($i = 0; $i < count($steps); $i += count($run)) {
            $run = [$steps[$i]];
            while (
                isset($steps[$i + count($run)]) &&
                count($run) < 500 &&
                $kind($steps[$i + count($run)]) === $kind($steps[$i])
            ) {
                $run[] = $steps[$i + count($run)];
            }
            $section = $run[0]['section'];
            array_map(fn (array $s) => $this->touch($section, $s['ref']), $run);
            if ($run[0]['now'] === null) {
                $this->store->insertMany(
                    $section,
                    array_map(static fn (array $s): array => $s['then'] ?? [], $run),
                    array_map(static fn (array $s): ?int => $s['row'], $run),
                );
            } elseif ($run[0]['then'] === null) {
                $this->store->deleteMany(
                    $section,
                    array_map(fn (array $s): int => $s['row'] ?? $this->store->rowOf($section, $s['ref']), $run),
                );
            } else {
                foreach ($run as $step) {
                    $this->store($section, $step['ref'], $step['then'] ?? [], $step['now'] ?? []);
                }
            }
        }
        $this->store->settle();
        array_map(
            $this->sortByRow(...),
            array_unique(
                array_column(array_filter($steps, static fn (array $s): bool => $s['now'] === null), 'section'),
            ),
        );
    }

    /** An entry that came back takes its old place. */
    private function sortByRow(string $section): void
    {
        $order = DB::table(Schema::sections()[$section]->name)
            ->where('build_id', $this->build->id)
            ->orderBy('id')
            ->pluck('ref')
            ->all();
        $held = $this->entries[$section];
        $this->entries[$section] = [];
        foreach (array_filter($order, is_string(...)) as $ref) {
            $this->entries[$section][$ref] = $held[$ref];
        }
    }

    /**
     * @param  array<int|string, mixed>  $after
     */
    private function replace(string $section, string $ref, array $after): void
    {
        $this->touch($section, $ref);
        if (isset($this->headers[$section])) {
            $this->headers[$section] = $after;

            return;
        }
        if ($after['ref'] !== $ref) {
            throw CannotEdit::at("/{$section}/{$ref}/ref", 'the short name cannot change: other entries may use it.');
        }
        $this->entries[$section][$ref] = $after;
    }

    /**
     * @param  array<int|string, mixed>  $after
     * @param  array<int|string, mixed>  $before
     */
    private function store(string $section, string $ref, array $after, array $before): ?int
    {
        if (! isset($this->headers[$section])) {
            return $this->store->update($section, $ref, $after, $before);
        }
        $this->store->writeHeader($section, $after);

        return null;
    }

    private function remove(string $section, string $ref): void
    {
        if (! isset($this->entries[$section][$ref])) {
            throw CannotEdit::at("/{$section}", 'this cannot be deleted.');
        }
        $this->touch($section, $ref);
        $uses = $this->readable ? References::usesOf(BuildFile::build($this->data(), kept: true), $section, $ref) : [];
        if ($uses !== []) {
            $first =
                implode(', ', array_slice($uses, 0, 5)).
                (count($uses) > 5 ? ' and '.(count($uses) - 5).' more' : '');
            throw CannotEdit::at("/{$section}/{$ref}", "\"{$ref}\" is used by {$first}. Change that first.");
        }
        unset($this->entries[$section][$ref]);
    }

    /**
     * An entry that was changed. A size that nothing can have is refused where it is written, not for having been
     * there.
     *
     * @param  array<int|string, mixed>  $after
     * @param  array<int|string, mixed>  $before
     * @return array<string, mixed>
     */
    private function reread(string $section, array $after, array $before, string $ref): array
    {
        try {
            return $this->read($section, $after, $ref);
        } catch (CannotReadBuildFile $e) {
            $path = Path::ofPointer($e->pointer, isset($this->headers[$section]) ? 1 : 2);
            if (
                $path === [] ||
                Path::get($before, $path) === null ||
                Path::get($before, $path) !== Path::get($after, $path)
            ) {
                throw $e;
            }

            return $this->read($section, $after, $ref, kept: true);
        }
    }

    /**
     * A step is done when nothing keeps it from that, or somebody has said why all the same; what cannot be taken back
     * is neither begun nor done before. What is done already is not asked again.
     *
     * @param  list<array{array{section: string, ref: string, before: array<int|string, mixed>|null,
     *     after: array<int|string, mixed>|null}, Closure(): (int|null)}>  $planned
     *
     * @throws CannotEdit
     */
    private function passGates(array $planned): void
    {
        foreach ($this->readable ? $planned : [] as [$record]) {
            $after = $record['after'];
            if ($record['section'] !== 'steps' || $record['before'] === null || $after === null) {
                continue;
            }
            $isDone = ($after['state'] ?? null) === 'done' && ($record['before']['state'] ?? null) !== 'done';
            $isBegun = count((array) ($after['timings'] ?? [])) > count((array) ($record['before']['timings'] ?? []));
            $machine = $this->document?->machine();
            $step = $machine?->steps[$record['ref']] ?? null;
            if ($machine === null || $step === null || (! $isDone && ! ($isBegun && $step->act !== null))) {
                continue;
            }
            $closed = Gate::closed($machine, $step, now: now()->getTimestamp());
            $locked = Gate::locked($step, $closed);
            if ($locked !== []) {
                throw CannotEdit::at(
                    "/steps/{$step->ref}/".($isDone ? 'state' : 'timings'),
                    "“{$step->title}” cannot be taken back once it is done, and stays locked: ".
                        self::says($locked).
                        '.',
                );
            }
            if ($isDone && $closed !== [] && $step->waived === null) {
                throw CannotEdit::at(
                    "/steps/{$step->ref}/state",
                    "“{$step->title}” cannot be done yet: ".
                        self::says($closed).
                        '. Say why it may be all the same, and that stays with it.',
                );
            }
        }
    }

    /**
     * @param  list<Gate>  $gates
     */
    private static function says(array $gates): string
    {
        return implode('; ', array_map(static fn (Gate $g): string => $g->says, $gates));
    }

    /** Nobody knows what a currency is worth tomorrow; a day's grace is for clocks on the other side of the world. */
    private static function isKnown(mixed $day, string $at): void
    {
        if (is_string($day) && $day > now()->addDay()->format('Y-m-d')) {
            throw CannotEdit::at($at, "{$day} is still to come: a rate is known on its day.");
        }
    }

    /**
     * An entry in canonical form, read by the core so that every rule of the format holds.
     *
     * @param  array<int|string, mixed>  $entry
     * @return array<string, mixed>
     */
    private function read(string $section, array $entry, string $ref, bool $kept = false): array
    {
        $currency = (string) ($this->headers['build']['currency'] ?? '');
        if ($section === 'build') {
            return Header::writePlan(Header::readPlan(new Node($entry, '/build', kept: $kept)));
        }
        if ($section === 'site') {
            return Header::writeSite(Header::readSite(new Node($entry, '/site', kept: $kept), $currency));
        }
        if ($section === 'brief') {
            return Header::writeBrief(Header::readBrief(new Node($entry, '/brief', kept: $kept), $currency));
        }
        $form = BuildFile::sections()[$section] ?? throw CannotEdit::at("/{$section}", 'there is no such collection.');
        if ($section === 'rates' && ! $kept) {
            self::isKnown($entry['date'] ?? null, "/rates/{$ref}/date");
        }
        $suppliers = [];
        foreach (
            in_array($section, ['offers', 'purchases', 'routes'], true) ? $this->entries['suppliers'] : [] as $name => $supplier
        ) {
            $suppliers[$name] = (new Suppliers)->read(
                new Node($supplier, kept: true),
                new Context(Catalogue::standard(), $currency),
            );
        }

        return $form->write(
            $form->read(
                new Node($entry, "/{$section}/{$ref}", kept: $kept),
                new Context(Catalogue::standard(), $currency, $suppliers),
            ),
        );
    }
}

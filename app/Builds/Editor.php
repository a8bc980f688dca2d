<?php

declare(strict_types=1);

namespace App\Builds;

use App\Models\Build;
use App\Models\Change;
use App\Models\Edit;
use App\Models\User;
use Closure;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;
use Magpie\Core\Format\BuildFile;
use Magpie\Core\Format\CannotReadBuildFile;
use Magpie\Core\Format\Context;
use Magpie\Core\Format\Header;
use Magpie\Core\Format\Node;
use Magpie\Core\Format\References;
use Magpie\Core\Format\Sections\Suppliers;
use Magpie\Core\Machine\Catalogue;

/**
 * Applies edits to a build, and takes them back: each in one transaction, recorded, and refused when what it started
 * from has changed since.
 */
final class Editor
{
    /** @var array<string, array<string, array<string, mixed>>> section → ref → entry */
    private array $entries = [];

    /** @var array<string, array<string, mixed>> `build`, `site` and `brief` */
    private array $headers = [];

    /** @var array<string, array{string, string}> section and ref of what this edit touched */
    private array $touched = [];

    private Store $store;

    private ?Document $document = null;

    public function __construct(private readonly Build $build, private readonly ?User $user)
    {
    }

    /**
     * @param  string  $key  made up by the client: the same edit sent twice is done once
     * @param  list<array<string, mixed>>  $changes  see docs/api/openapi.json, Change
     *
     * @throws Conflict
     * @throws CannotEdit
     * @throws CannotReadBuildFile
     */
    public function apply(string $key, string $label, array $changes): EditResult
    {
        $known = Edit::query()->where(['build_id' => $this->build->id, 'key' => $key])->first();
        if ($known !== null) {
            return $this->stored($known);
        }

        return $this->inOne(function () use ($key, $label, $changes): Edit {
            Edit::query()->where(['build_id' => $this->build->id, 'state' => 'undone', 'user_id' => $this->user?->id])->update(['state' => 'dropped']);
            $edit = $this->build->edits()->create([
                'user_id' => $this->user?->id, 'revision' => $this->build->revision, 'key' => $key, 'label' => mb_substr($label, 0, 200), 'state' => 'done', 'made_at' => now(),
            ]);
            $planned = array_map($this->change(...), $changes);
            // Every name must name something before a row is written.
            $this->document = Document::from($this->data());
            $this->document->machine();
            $records = [];
            foreach ($planned as [$record, $write]) {
                $records[] = ['edit_id' => $edit->id, 'row' => $write()] + $record;
            }
            Change::query()->insert(array_map(static fn (array $r): array => [
                'before' => $r['before'] === null ? null : Document::json($r['before']),
                'after' => $r['after'] === null ? null : Document::json($r['after']),
            ] + $r, $records));

            return $edit;
        });
    }

    /**
     * Takes back this user's last edit, or does again what was last taken back; null when there is none.
     *
     * @throws Conflict
     */
    public function revert(bool $redo): ?EditResult
    {
        $query = Edit::query()->where(['build_id' => $this->build->id, 'user_id' => $this->user?->id]);
        $edit = $redo ? $query->where('state', 'undone')->orderBy('id')->first() : $query->where('state', 'done')->orderByDesc('id')->first();
        if ($edit === null) {
            return null;
        }

        return $this->inOne(function () use ($edit, $redo): Edit {
            $changes = $edit->changes()->get();
            foreach (($redo ? $changes : $changes->reverse()->values())->chunkWhile(self::alike(...)) as $run) {
                $this->restoreRun($run->values(), $redo);
            }
            $edit->update(['state' => $redo ? 'done' : 'undone']);

            return $edit;
        });
    }

    /**
     * @param  Closure(): Edit  $work
     */
    private function inOne(Closure $work): EditResult
    {
        return DB::transaction(function () use ($work): EditResult {
            $this->build->revision = (int) DB::table('builds')->where('id', $this->build->id)->lockForUpdate()->value('revision');
            $this->store = new Store($this->build);
            $this->open(Document::of($this->build));
            $this->build->revision++;
            $edit = $work();
            $document = $this->document ?? Document::from($this->data());
            $document->machine();
            DB::table('builds')->where('id', $this->build->id)->update(['revision' => $this->build->revision, 'updated_at' => now()]);

            return new EditResult($edit, $this->build->revision, $this->touched(), $document->keep($this->build));
        });
    }

    private function stored(Edit $edit): EditResult
    {
        $this->open(Document::of($this->build));

        foreach ($edit->changes()->get(['section', 'ref']) as $change) {
            $this->touch($change->section, $change->ref);
        }

        return new EditResult($edit, $this->build->revision, $this->touched(), Document::overview($this->build));
    }

    private function touch(string $section, string $ref): void
    {
        $this->touched["{$section}/{$ref}"] = [$section, $ref];
    }

    /**
     * @return list<array{section: string, ref: string, entry: array<string, mixed>|null}> entries an edit touched, as they are now
     */
    private function touched(): array
    {
        return array_values(array_map(fn (array $t): array => ['section' => $t[0], 'ref' => $t[1], 'entry' => $this->current($t[0], $t[1])], $this->touched));
    }

    private function open(Document $document): void
    {
        foreach (array_keys(Schema::headers()) as $header) {
            $this->headers[$header] = $document->data[$header] ?? [];
        }
        foreach (array_keys(BuildFile::sections()) as $section) {
            $this->entries[$section] = array_column($document->data[$section] ?? [], null, 'ref');
        }
    }

    /**
     * @return array<string, mixed>
     */
    private function data(): array
    {
        return array_filter(['magpie' => BuildFile::VERSION] + $this->headers + array_map(array_values(...), $this->entries), static fn (mixed $v): bool => $v !== []);
    }

    /**
     * @return array<string, mixed>|null
     */
    private function current(string $section, string $ref): ?array
    {
        return $this->headers[$section] ?? $this->entries[$section][$ref] ?? null;
    }

    /**
     * @param  array<string, mixed>  $change
     * @return array{array{section: string, ref: string, before: array<string, mixed>|null, after: array<string, mixed>|null}, Closure(): (int|null)} the record, and how its row is written
     */
    private function change(array $change): array
    {
        $section = (string) $change['section'];
        if (isset($change['create'])) {
            $after = $this->read($section, $change['create'], (string) ($change['create']['ref'] ?? 'new'));
            $ref = (string) $after['ref'];
            if (isset($this->entries[$section][$ref])) {
                throw CannotEdit::at("/{$section}/{$ref}/ref", "there is already a \"{$ref}\" among the {$section}.");
            }
            $this->entries[$section][$ref] = $after;
            $this->touch($section, $ref);

            return [['section' => $section, 'ref' => $ref, 'before' => null, 'after' => $after], fn (): int => $this->store->insert($section, $after)];
        }
        $ref = (string) ($change['ref'] ?? '');
        $before = $this->current($section, $ref);
        if ($before === null) {
            throw new Conflict([['section' => $section, 'ref' => $ref, 'path' => [], 'was' => null, 'now' => null]]);
        }
        if (($change['delete'] ?? false) === true) {
            $this->remove($section, $ref);

            return [['section' => $section, 'ref' => $ref, 'before' => $before, 'after' => null], fn (): int => $this->store->delete($section, $ref)];
        }
        $after = $before;
        $clashes = [];
        foreach ($change['set'] as $set) {
            $now = Path::get($before, $set['path']);
            if (array_key_exists('was', $set) && $set['was'] !== $now) {
                $clashes[] = ['section' => $section, 'ref' => $ref, 'path' => $set['path'], 'was' => $set['was'], 'now' => $now];
            }
            $after = Path::set($after, $set['path'], $set['to'] ?? null);
        }
        if ($clashes !== []) {
            throw new Conflict($clashes);
        }
        $after = $this->read($section, $after, $ref);
        $this->replace($section, $ref, $after);

        return [['section' => $section, 'ref' => $ref, 'before' => $before, 'after' => $after], fn (): ?int => $this->store($section, $ref, $after, $before)];
    }

    /**
     * Changes of one kind in a row, as an import leaves them, are taken back in few statements.
     *
     * @param  Collection<int, Change>  $so
     */
    private static function alike(Change $next, int $key, Collection $so): bool
    {
        $last = $so->last();

        return $last !== null && $so->count() < 500 && $next->section === $last->section && $next->before === null && $last->before === null;
    }

    /**
     * @param  Collection<int, Change>  $run
     */
    private function restoreRun(Collection $run, bool $redo): void
    {
        $first = $run->first();
        $section = $first->section ?? '';
        foreach ($run as $change) {
            $expected = $redo ? $change->before : $change->after;
            $ref = (string) ($expected['ref'] ?? $change->ref);
            $now = $this->current($section, $ref);
            if (Document::json($now) !== Document::json($expected)) {
                throw new Conflict([['section' => $section, 'ref' => $ref, 'path' => [], 'was' => $expected, 'now' => $now]]);
            }
            $this->touch($section, $ref);
        }
        if ($first !== null && ($first->before !== null || $run->count() === 1)) {
            $this->restore($first, $redo ? $first->after : $first->before, $redo ? $first->before : $first->after);

            return;
        }
        $rows = array_values($run->map(static fn (Change $c): int => (int) $c->row)->all());
        if ($redo) {
            $entries = array_values($run->map(static fn (Change $c): array => $c->after ?? [])->all());
            $this->store->insertMany($section, $entries, $rows);
            $this->entries[$section] += array_column($entries, null, 'ref');
        } else {
            $this->store->deleteMany($section, $rows);
            foreach ($run as $change) {
                unset($this->entries[$section][$change->ref]);
            }
        }
    }

    /**
     * @param  array<string, mixed>|null  $wanted
     * @param  array<string, mixed>|null  $expected  what stands now
     */
    private function restore(Change $change, ?array $wanted, ?array $expected): void
    {
        if ($wanted === null) {
            unset($this->entries[$change->section][$change->ref]);
            $this->store->delete($change->section, $change->ref);
        } elseif ($expected === null) {
            $this->entries[$change->section][$wanted['ref']] = $wanted;
            $this->store->insert($change->section, $wanted, $change->row);
            $this->sortByRow($change->section);
        } else {
            $this->replace($change->section, $change->ref, $wanted);
            $this->store($change->section, $change->ref, $wanted, $expected);
        }
    }

    /** An entry that came back takes its old place. */
    private function sortByRow(string $section): void
    {
        $order = DB::table(Schema::sections()[$section]->name)->where('build_id', $this->build->id)->orderBy('id')->pluck('ref')->all();
        $held = $this->entries[$section];
        $this->entries[$section] = [];
        foreach ($order as $ref) {
            $this->entries[$section][$ref] = $held[$ref];
        }
    }

    /**
     * @param  array<string, mixed>  $after
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
     * @param  array<string, mixed>  $after
     * @param  array<string, mixed>  $before
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
        $uses = References::usesOf(BuildFile::build($this->data()), $section, $ref);
        if ($uses !== []) {
            $first = implode(', ', array_slice($uses, 0, 5)).(count($uses) > 5 ? ' and '.(count($uses) - 5).' more' : '');
            throw CannotEdit::at("/{$section}/{$ref}", "\"{$ref}\" is used by {$first}. Change that first.");
        }
        unset($this->entries[$section][$ref]);
    }

    /**
     * An entry in canonical form, read by the core so that every rule of the format holds.
     *
     * @param  array<int|string, mixed>  $entry
     * @return array<string, mixed>
     */
    private function read(string $section, array $entry, string $ref): array
    {
        $currency = (string) ($this->headers['build']['currency'] ?? '');
        if ($section === 'build') {
            return Header::writePlan(Header::readPlan(new Node($entry, '/build')));
        }
        if ($section === 'site') {
            return Header::writeSite(Header::readSite(new Node($entry, '/site'), $currency));
        }
        if ($section === 'brief') {
            return Header::writeBrief(Header::readBrief(new Node($entry, '/brief'), $currency));
        }
        $form = BuildFile::sections()[$section] ?? throw CannotEdit::at("/{$section}", 'there is no such collection.');
        $suppliers = [];
        foreach (in_array($section, ['offers', 'purchases', 'routes'], true) ? $this->entries['suppliers'] : [] as $name => $supplier) {
            $suppliers[$name] = (new Suppliers)->read(new Node($supplier), new Context(Catalogue::standard(), $currency));
        }

        return $form->write($form->read(new Node($entry, "/{$section}/{$ref}"), new Context(Catalogue::standard(), $currency, $suppliers)));
    }
}

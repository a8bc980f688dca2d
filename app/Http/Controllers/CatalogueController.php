<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Magpie\Core\Assembly\Recorded;
use Magpie\Core\Assembly\Rules;
use Magpie\Core\Families\Catalogue;
use Magpie\Core\Inspection\Check;
use Magpie\Core\Inspection\Threshold;
use Magpie\Core\Inspection\Topic;
use Magpie\Core\Machine\Ability;
use Magpie\Core\Machine\Choosing\Interest;
use Magpie\Core\Machine\Choosing\LineKind;
use Magpie\Core\Machine\Choosing\RouteKind;
use Magpie\Core\Machine\Choosing\Schools;
use Magpie\Core\Machine\Craft;
use Magpie\Core\Machine\Draw;
use Magpie\Core\Machine\Evidence;
use Magpie\Core\Machine\Experience;
use Magpie\Core\Machine\Family;
use Magpie\Core\Machine\Neighbours;
use Magpie\Core\Machine\Port;
use Magpie\Core\Machine\Process;
use Magpie\Core\Machine\Purpose;
use Magpie\Core\Machine\RevisionOf;
use Magpie\Core\Machine\RevisionState;
use Magpie\Core\Machine\Site;
use Magpie\Core\Machine\SpecField;
use Magpie\Core\Machine\Stranding;
use Magpie\Core\Machine\Termination;
use Magpie\Core\Machine\ThreadIn;
use Magpie\Core\Machine\Ventilation;
use Magpie\Core\Machine\Work\Act;
use Magpie\Core\Machine\Work\Cautions;
use Magpie\Core\Machine\Work\DocumentKind;
use Magpie\Core\Machine\Work\FaultKind;
use Magpie\Core\Machine\Work\FaultState;
use Magpie\Core\Machine\Work\FoundBy;
use Magpie\Core\Machine\Work\Hand;
use Magpie\Core\Machine\Work\Severity;
use Magpie\Core\Reference\Instruments;
use Magpie\Core\Reference\StandardTables;
use Magpie\Core\Reference\Terms;
use Magpie\Core\Scope\Countries;

/** What the interface needs to know of the trade: families with their sheets, checks, and the words of each list. */
final class CatalogueController
{
    /** What should be asked about a size before it is stored; null when it is a usual one, or cannot be read at all. */
    public function doubt(Request $request): JsonResponse
    {
        /** @var array{family: string, key: string, value: string} $asked */
        $asked = $request->validate([
            'family' => ['required', 'string', 'max:64'],
            'key' => ['required', 'string', 'max:64'],
            'value' => ['required', 'string', 'max:200'],
        ]);
        $field = Catalogue::standard()->find($asked['family'])?->field($asked['key']);

        return new JsonResponse(['question' => $field?->question($asked['value'])]);
    }

    public function show(): JsonResponse
    {
        return (new JsonResponse([
            'families' => array_values(array_map(self::family(...), Catalogue::standard()->all())),
            'checks' => array_map(self::check(...), Rules::inspector()->checks),
            'evidence' => array_map(
                static fn (Evidence $e): array => ['key' => $e->value, 'label' => $e->label()],
                Evidence::cases(),
            ),
            'cautions' => Cautions::all(),
            'terminations' => Termination::words(),
            'strandings' => Stranding::words(),
            'screw_into' => ThreadIn::words(),
            'severities' => Severity::words(),
            'fault_states' => FaultState::words(),
            'fault_kinds' => FaultKind::words(),
            'acts' => Act::words(),
            'hands' => Hand::words(),
            'found_by' => FoundBy::words(),
            'document_kinds' => DocumentKind::words(),
            'schools' => array_map(
                static fn (string $key, array $s): array => ['key' => $key] + $s,
                array_keys(Schools::all()),
                Schools::all(),
            ),
            'countries' => array_map(
                static fn (string $name, array $c): array => [
                    'name' => $name,
                    'voltage' => $c[0],
                    'frequency' => $c[1],
                    'outlets' => $c[2],
                ],
                array_keys(Countries::all()),
                Countries::all(),
            ),
            'tables' => StandardTables::all(),
            'purposes' => Purpose::words(),
            'interests' => Interest::words(),
            'route_kinds' => RouteKind::words(),
            'line_kinds' => LineKind::words(),
            'revision_of' => RevisionOf::words(),
            'revision_states' => RevisionState::words(),
            'processes' => Process::words(),
            'experience' => Experience::words(),
            'trades' => Craft::words(),
            'noise' => Neighbours::words(),
            'ventilation' => Ventilation::words(),
            'precautions' => Site::PRECAUTIONS,
            'terms' => array_map(
                static fn (string $word, array $term): array => [
                    'word' => $word,
                    'means' => $term[0],
                    'find' => $term[1],
                ],
                array_keys(Terms::ofTheTrade()),
                Terms::ofTheTrade(),
            ),
        ]))->header('Cache-Control', 'private, max-age=300');
    }

    /**
     * @return array<string, mixed>
     */
    private static function family(Family $family): array
    {
        $reads = [];
        foreach (Recorded::reads() as $check => $specs) {
            foreach ($specs as $spec) {
                [$of, $key] = explode('.', $spec, 2);
                if ($of === $family->key()) {
                    $reads[$key][] = $check;
                }
            }
        }

        $compared = array_merge(...$family->ratios());

        return [
            'key' => $family->key(),
            'title' => $family->title(),
            'trade' => $family->trade()->value,
            'account' => $family->account()->value,
            'always_on' => $family->alwaysOn(),
            'sits_in' => $family->hosts(),
            'counted_by' => $family->countedBy(),
            'abilities' => array_map(static fn (Ability $a): string => $a->value, $family->abilities()),
            'fields' => array_map(
                static fn (SpecField $f): array => [
                    'key' => $f->key,
                    'label' => $f->label,
                    'kind' => $f->kind->value,
                    'dimension' => $f->dimension?->value,
                    'unit' => $f->unit,
                    'choices' => $f->choices,
                    'help' => $f->help,
                    'find' => self::find($f, $family),
                    'better' => $f->better,
                    'checks' => $reads[$f->key] ?? [],
                    'compared' => $f->better !== null || in_array($f->key, $compared, true),
                ],
                $family->sheet(),
            ),
            'ports' => array_map(
                static fn (Port $p): array => [
                    'name' => $p->name,
                    'kind' => $p->kind->value,
                    'mains' => $p->mains,
                    'draws' => $p->draw !== null && $p->draw !== Draw::Converter,
                ],
                $family->ports(),
            ),
        ];
    }

    /** With what a line of a sheet is found out, and how. */
    private static function find(SpecField $field, Family $family): string
    {
        [$instrument, $method] = Instruments::of(
            $field->key,
            $field->dimension,
            in_array(Ability::RatedByMaker, $family->abilities(), true),
        );

        return ucfirst("{$instrument}. {$method}");
    }

    /**
     * @return array<string, mixed>
     */
    private static function check(Check $check): array
    {
        $card = $check->card();
        [$means, $find] = Terms::ofCheck($card->id) ?? ['', ''];

        return [
            'id' => $card->id,
            'title' => $card->title,
            'question' => $card->question,
            'trade' => $card->trade->value,
            'source' => $card->source,
            'means' => $means,
            'find' => $find,
            'topics' => array_map(static fn (Topic $t): string => $t->value, $card->topics),
            'thresholds' => array_map(
                static fn (Threshold $t): array => ['meaning' => $t->meaning, 'default' => $t->default->text()],
                $card->thresholds,
            ),
        ];
    }
}

<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets\Internal;

use Plinth\Core\Escape\EscapeRoute;
use Plinth\Core\Plan\Derivation\DerivedStorey;
use Plinth\Core\Plan\Model\Opening;
use Plinth\Core\Plan\Model\Room;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Sheets\Exception\UnusableSheet;
use Plinth\Core\Sheets\FireOnPlan;
use Plinth\Core\Sheets\InkPicture;
use Plinth\Core\Sheets\InkText;
use Plinth\Core\Sheets\Model\SheetView;
use Plinth\Core\Sheets\Model\Shows;
use Plinth\Core\Sheets\Model\ViewKind;
use Plinth\Core\Sheets\SheetInk;
use Plinth\Core\Sheets\SheetSubject;

/**
 * What stands on a sheet and has no scale: tables of rooms and openings, key, notes, pictures.
 *
 * @internal
 */
final readonly class SheetTables
{
    private const PICTURE_MM = 120.0;

    /** @param \Closure(Storey): DerivedStorey $derived */
    public function __construct(private SheetSubject $subject, private \Closure $derived, private FireOnPlan $fire)
    {
    }

    /** @throws UnusableSheet */
    public function of(SheetView $view): SheetInk
    {
        return match ($view->kind) {
            ViewKind::Rooms => $this->rooms($view),
            ViewKind::Openings => $this->openings($view),
            ViewKind::Enclosures => $this->enclosures($view),
            ViewKind::Ways => $this->ways($view),
            ViewKind::Key => $this->key($view),
            ViewKind::Picture => $this->picture($view),
            default => $this->notes($view),
        };
    }

    private function rooms(SheetView $view): SheetInk
    {
        $rows = [];
        $all = 0.0;
        foreach ($this->subject->plan->storeys as $storey) {
            if ('' !== $view->of && $storey->id !== $view->of) {
                continue;
            }
            $regions = ($this->derived)($storey)->regions;
            usort($regions, static fn ($a, $b): int => strnatcmp($a->room->number ?? '~', $b->room->number ?? '~'));
            foreach ($regions as $region) {
                $rows[] = [
                    $storey->name,
                    $region->room->number ?? '',
                    $region->room->name ?? '–',
                    $this->subject->written->length($region->clear[0]),
                    $this->subject->written->length($region->clear[1]), $this->subject->written->area($region->netAreaMm2),
                ];
                $all += $region->netAreaMm2;
            }
        }
        $rows[] = ['', '', 'together', '', '', $this->subject->written->area($all)];
        $title = '' === $view->title ? 'Rooms' : $view->title;

        return WordsInk::table($title, ['storey', 'no.', 'room', 'width', 'depth', 'net area'], $rows, $view->x, $view->y, [3, 4, 5]);
    }

    private function openings(SheetView $view): SheetInk
    {
        $numbers = $this->subject->numbers;
        $rows = [];
        foreach ($this->subject->plan->storeys as $storey) {
            if ('' !== $view->of && $storey->id !== $view->of) {
                continue;
            }
            $numbered = array_filter($storey->openings, static fn (Opening $o): bool => isset($numbers[$o->id]));
            usort($numbered, static fn (Opening $a, Opening $b): int => strnatcmp($numbers[$a->id], $numbers[$b->id]));
            foreach ($numbered as $opening) {
                $rows[] = [
                    $numbers[$opening->id], $storey->name, $opening->kind->value, $this->subject->written->length($opening->width),
                    null === $opening->height ? '–' : $this->subject->written->length($opening->height),
                    $this->subject->written->length($opening->sill),
                    'door' === $opening->kind->value ? "$opening->leaf, $opening->hand" : '',
                ];
            }
        }
        $title = '' === $view->title ? 'Doors and windows' : $view->title;

        return WordsInk::table($title, ['no.', 'storey', 'kind', 'width', 'height', 'sill', 'leaf'], $rows, $view->x, $view->y, [3, 4, 5]);
    }

    /** How much each class encloses, storey by storey, and the doors in what bounds it. */
    private function enclosures(SheetView $view): SheetInk
    {
        $plan = $this->fire->enclosures();
        [$rows, $totals, $doors] = [[], $plan->totals(), []];
        foreach ($plan->doors() as $door) {
            $number = $this->subject->numbers[$door->opening->id] ?? $door->opening->kind->value;
            $doors[$door->enclosure][$door->opening->id] = "$number ".($door->isRated() ? $door->opening->rated : '–');
        }
        foreach ($this->fire->key() as $class) {
            foreach ($this->subject->plan->storeys as $storey) {
                if (('' !== $view->of && $storey->id !== $view->of) || !isset($totals[$class->id][$storey->id])) {
                    continue;
                }
                $own = array_values(array_filter($this->fire->on($storey->id), static fn (array $of): bool => $of[0] === $class));
                $rooms = array_merge(...array_map(static fn (array $of): array => $of[1]->enclosure->rooms, $own));
                $named = array_filter($storey->rooms, static fn (Room $r): bool => \in_array($r->id, $rooms, true));
                $names = array_map(static fn (Room $r): string => $r->name, $named);
                $in = array_merge(...array_map(static fn (array $of): array => $doors[$of[1]->enclosure->id] ?? [], $own));
                $rows[] = [
                    $class->name, $storey->name, [] === $names ? '–' : implode(', ', $names),
                    $this->subject->written->area($totals[$class->id][$storey->id]), implode(', ', $in),
                ];
            }
        }
        $title = '' === $view->title ? 'Enclosures' : $view->title;

        return WordsInk::table($title, ['class', 'storey', 'rooms', 'area', 'doors in what bounds it'], $rows, $view->x, $view->y, [3]);
    }

    /** From the worst place of every room, with what the project asks for and is not kept. */
    private function ways(SheetView $view): SheetInk
    {
        $rows = [];
        $told = fn (?EscapeRoute $route): string => null === $route ? '–' : $this->subject->written->length($route->mm);
        foreach ($this->fire->ways() as $way) {
            if ('' !== $view->of && $way->storey !== $view->of) {
                continue;
            }
            $narrowest = ($way->toFinal ?? $way->toExit)?->narrowestMm;
            $rows[] = [
                $this->subject->storey($way->storey)->name ?? '', $way->region->room->name ?? '–',
                $told($way->toExit), $told($way->toFinal),
                null === $narrowest || \INF === $narrowest ? '–' : $this->subject->written->length($narrowest),
                [] === $this->fire->broken($way) ? '' : 'over its limit',
            ];
        }
        $title = '' === $view->title ? 'Ways out' : $view->title;

        $head = ['storey', 'from', 'to an exit', 'into the open air', 'narrowest', ''];

        return WordsInk::table($title, $head, $rows, $view->x, $view->y, [2, 3, 4]);
    }

    private function key(SheetView $view): SheetInk
    {
        if ($view->shows(Shows::Enclosures)) {
            return WordsInk::classes('' === $view->title ? 'Key' : $view->title, $this->fire->key(), $view->x, $view->y);
        }
        $thick = [];
        $isWorn = false;
        foreach ($this->subject->plan->storeys as $storey) {
            foreach ($storey->walls as $wall) {
                $thick[$this->subject->buildUps[$wall->id] ?? ''][$this->subject->written->length($wall->thickness)] = true;
                $isWorn = $isWorn || isset($this->subject->beside[$storey->id]->freeHand[$wall->id]);
            }
        }
        ksort($thick, \SORT_NATURAL);
        $patterns = [];
        foreach ($view->shows(Shows::Hatch) ? $this->subject->buildUps : [] as $wall => $name) {
            $patterns[$name] = $this->subject->hatches[$wall];
        }
        $signs = [];
        foreach ($thick as $name => $of) {
            $figures = array_map(strval(...), array_keys($of));
            natsort($figures);
            $pattern = $patterns[$name] ?? null;
            $kind = null === $pattern ? 'cut' : "hatch $pattern";
            $signs[] = [$kind, '' === $name ? 'wall' : $name, implode(', ', \array_slice($figures, 0, 6))];
        }
        if ($isWorn) {
            $signs[] = ['worn', 'wall that rests on no ink and no figure', '(where its wear is shown)'];
        }
        array_push(
            $signs,
            ['seen', 'edge that is seen', ''],
            ['hidden', 'edge that is hidden, or lies over the cut', ''],
            ['section', 'axis, or where a section is cut', ''],
        );
        if ([] !== $this->subject->boundaries) {
            $signs[] = ['boundary', 'boundary of the site', ''];
        }

        return WordsInk::key('' === $view->title ? 'Key' : $view->title, $signs, $view->x, $view->y);
    }

    private function notes(SheetView $view): SheetInk
    {
        $said = array_values(array_filter(array_map(trim(...), explode("\n", $view->words)), static fn (string $l): bool => '' !== $l));
        if ($view->shows(Shows::Notes)) {
            array_push($said, ...array_map(static fn (string $a): string => "Assumed: $a", $this->subject->assumptions));
        }

        return WordsInk::notes(
            '' === $view->title ? 'Notes' : $view->title,
            $said,
            $view->x,
            $view->y,
            $view->width ?? WordsInk::NOTES_WIDE_MM,
        );
    }

    private function picture(SheetView $view): SheetInk
    {
        $picture = $this->subject->pictures[$view->of] ?? throw UnusableSheet::showsWhatIsGone();
        $wide = $view->width ?? self::PICTURE_MM;
        $high = $wide * hypot(...$picture->down) / max(1e-9, hypot(...$picture->right));
        $name = '' === $view->title ? ($this->subject->pictureNames[$view->of] ?? '') : $view->title;

        return new SheetInk([], [], '' === $name ? [] : [new InkText($view->x, $view->y + $high + 5.0, $name, 2.5)], [
            new InkPicture($picture->bytes, $picture->type, [$view->x, $view->y], [$wide, 0.0], [0.0, $high]),
        ]);
    }
}

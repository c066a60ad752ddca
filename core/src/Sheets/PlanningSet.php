<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets;

use Plinth\Core\Plan\Model\Enclosure;
use Plinth\Core\Sheets\Exception\UnusableSheet;
use Plinth\Core\Sheets\Model\PrintSheet;
use Plinth\Core\Sheets\Model\SheetView;
use Plinth\Core\Sheets\Model\Shows;
use Plinth\Core\Sheets\Model\ViewKind;

/**
 * The sheets that go in together, proposed: the site with notes and key, plans, sides, sections, then the building as it stands with
 * tables and pictures. Scales are those that planning authorities ask for; common practice, no source.
 */
final class PlanningSet
{
    private const SITE = [200.0, 500.0, 1000.0, 2000.0];
    private const SET = [100.0, 200.0, 500.0];
    private const SECTIONS = [50.0, 100.0, 200.0, 500.0];
    /** Between views, and from the frame, mm of paper. */
    private const APART_MM = 8.0;
    private const TURN = 35.0;
    private const TILT = 30.0;
    private const MOST_ON_SHEET = 8;
    private const GRID_MM = 4.0;
    /** A view is put lower by so much at most to stand level with the one beside it, mm of paper. */
    private const LOWER_MM = 60.0;

    /** @var list<PrintSheet> */
    private array $sheets = [];

    /** @param \Closure(): string $newId */
    private function __construct(
        private readonly SheetSubject $subject,
        private readonly SheetPainter $painter,
        private readonly float $width,
        private readonly float $height,
        private readonly \Closure $newId,
        private readonly string $letter = 'A',
    ) {
    }

    /**
     * @param \Closure(): string $newId an id for each sheet and view
     *
     * @return list<PrintSheet>
     */
    public static function of(SheetSubject $subject, PaperSize $paper, bool $upright, \Closure $newId): array
    {
        [$short, $long] = $paper->sides();
        [$width, $height] = $upright ? [$short, $long] : [$long, $short];
        $set = new self($subject, new SheetPainter($subject), $width, $height, $newId);
        $set->propose();

        return $set->sheets;
    }

    /**
     * A fire plan of every storey on which anything is enclosed, with its key and its tables.
     *
     * @param \Closure(): string $newId
     *
     * @return list<PrintSheet>
     *
     * @throws UnusableSheet where nothing is enclosed
     */
    public static function fire(SheetSubject $subject, PaperSize $paper, bool $upright, \Closure $newId): array
    {
        [$short, $long] = $paper->sides();
        [$width, $height] = $upright ? [$short, $long] : [$long, $short];
        $set = new self($subject, new SheetPainter($subject), $width, $height, $newId, 'F');
        $enclosed = array_map(static fn (Enclosure $e): string => $e->storey, $subject->plan->fire->enclosures);
        foreach ($subject->plan->storeys as $storey) {
            if (\in_array($storey->id, $enclosed, true)) {
                $set->put("Fire plan, $storey->name", [
                    [$set->view(ViewKind::Plan, $storey->id, shows: Shows::onFirePlan()), self::SECTIONS],
                    [$set->view(ViewKind::Key, shows: [Shows::Enclosures]), []],
                    [$set->view(ViewKind::Enclosures, $storey->id), []],
                    [$set->view(ViewKind::Ways, $storey->id), []],
                ]);
            }
        }

        return [] === $set->sheets ? throw UnusableSheet::enclosesNothing() : $set->sheets;
    }

    /**
     * One storey on a sheet of its own, as large as it fits.
     *
     * @param non-empty-list<float> $scales from the largest drawing to the smallest
     *
     * @throws UnusableSheet where there is nothing to be drawn, or not the room for it
     */
    public static function plan(
        SheetSubject $subject,
        string $storey,
        PaperSize $paper,
        bool $upright,
        array $scales = PrintScale::RECOMMENDED,
    ): PrintSheet {
        [$short, $long] = $paper->sides();
        [$width, $height] = $upright ? [$short, $long] : [$long, $short];
        $set = new self($subject, new SheetPainter($subject), $width, $height, static fn (): string => '1');
        [$left, $top, $right, $bottom] = PaperFrame::room($width, $height);
        $view = $set->view(ViewKind::Plan, $storey);
        $name = $subject->storey($storey)->name ?? '';
        if ([] === ($subject->storey($storey)->walls ?? [])) {
            throw UnusableSheet::isEmpty();
        }
        $scaled = $view->scaled($set->fitting($view, $scales, $right - $left, $bottom - $top));
        $box = $set->painter->view($scaled)->bounds();
        if (null === $box || $box[2] - $box[0] > $right - $left || $box[3] - $box[1] > $bottom - $top) {
            throw UnusableSheet::isTooSmall();
        }
        $at = $scaled->at(($left + $right - $box[0] - $box[2]) / 2.0, ($top + $bottom - $box[1] - $box[3]) / 2.0);

        return new PrintSheet('1', $width, $height, [$at], '' === $name ? $storey : $name);
    }

    private function propose(): void
    {
        $storeys = array_values(array_filter($this->subject->plan->storeys, static fn ($s): bool => [] !== $s->walls));
        if ([] !== $this->subject->boundaries || [] !== $storeys) {
            $this->put('Site, notes and key', [
                [$this->view(ViewKind::Site), self::SITE],
                [$this->view(ViewKind::Key), []],
                [$this->view(ViewKind::Notes, words: $this->notes()), []],
            ]);
        }
        $this->put('Plans', array_map(fn ($s): array => [$this->view(ViewKind::Plan, $s->id), self::SET], $storeys));
        $sides = array_filter($this->subject->sides, static fn (SubjectSide $s): bool => [] !== ($s->drawn->lines ?? []));
        $isCut = static fn (SubjectSide $s): bool => [] !== $s->cut;
        $whole = array_keys(array_filter($sides, static fn (SubjectSide $s): bool => !$isCut($s)));
        $this->put('Elevations', array_map(fn (string $id): array => [$this->view(ViewKind::Side, $id), self::SET], $whole));
        $cut = array_keys(array_filter($sides, $isCut));
        $this->put('Sections', array_map(fn (string $id): array => [$this->view(ViewKind::Side, $id), self::SECTIONS], $cut));
        if ([] !== $storeys) {
            $pictures = array_map(
                fn (string $id): array => [$this->view(ViewKind::Picture, $id), []],
                \array_slice(array_keys($this->subject->pictures), 0, 2),
            );
            $this->put('Roof and schedules', [
                [$this->view(ViewKind::Standing)->lookedAt(0.0, 90.0), self::SET],
                [$this->view(ViewKind::Standing), self::SET],
                [$this->view(ViewKind::Rooms), []],
                [$this->view(ViewKind::Openings), []],
                ...$pictures,
            ]);
        }
    }

    private function notes(): string
    {
        return implode("\n", [
            'Dimensions are told; do not scale from prints except by the bar beside each drawing.',
            'Sizes are clear of finishes unless said otherwise; levels are over the project’s zero.',
            'Check on site before work begins; tell the designer of anything that differs.',
        ]);
    }

    /** @param list<Shows>|null $shows what is usual without */
    private function view(ViewKind $kind, string $of = '', string $words = '', ?array $shows = null): SheetView
    {
        $isStanding = ViewKind::Standing === $kind;

        return new SheetView(
            ($this->newId)(),
            $kind,
            $of,
            0.0,
            0.0,
            words: $words,
            shows: $shows ?? Shows::usually($kind),
            turn: $isStanding ? self::TURN : 0.0,
            tilt: $isStanding ? self::TILT : 0.0,
        );
    }

    /**
     * Puts views on sheets: as large as they are asked for, if they fit at all; as many on a sheet as there is room for.
     *
     * @param list<array{SheetView, list<float>}> $views with the scales that are tried
     */
    private function put(string $part, array $views): void
    {
        [$left, $top, $right, $bottom] = PaperFrame::room($this->width, $this->height);
        $placed = [];
        // Those of one kind have one scale: the largest at which the largest of them fits.
        $scale = null;
        foreach ($views as [$view, $scales]) {
            if ([] !== $scales && ViewKind::Site !== $view->kind) {
                $fits = $this->fitting($view, $scales, $right - $left - 2.0 * self::APART_MM, $bottom - $top - 2.0 * self::APART_MM);
                $scale = max($scale ?? 0.0, $fits);
            }
        }
        if (null !== $scale && $scale < self::SET[0] && !$this->fitsOnOne($views, $scale)) {
            $scale = self::SET[0]; // rather one sheet than one more each
        }
        $boxes = [];
        foreach ($views as [$view, $scales]) {
            $scaled = [] === $scales ? $view : $view->scaled(ViewKind::Site === $view->kind
                ? $this->fitting($view, $scales, 0.6 * ($right - $left), $bottom - $top - 2.0 * self::APART_MM)
                : ($scale ?? 100.0));
            $box = $this->painter->view($scaled)->bounds();
            if (null === $box) {
                continue;
            }
            $at = \count($placed) < self::MOST_ON_SHEET ? $this->place($box[2] - $box[0], $box[3] - $box[1], $boxes) : null;
            if (null === $at && [] !== $placed) {
                $this->begin($part, $placed);
                [$placed, $boxes] = [[], []];
                $at = $this->place($box[2] - $box[0], $box[3] - $box[1], []);
            }
            // Too large for the paper at any scale, it stands where it begins: people see that and choose larger paper.
            [$x, $y] = $at ?? [$left + self::APART_MM, $top + self::APART_MM];
            // Beside one of its kind it stands at the same height: floors lie over floors, ground at ground.
            $before = $placed[\count($placed) - 1] ?? null;
            $isAlike = $before?->kind === $scaled->kind && $scaled->kind->isToScale();
            $lower = $isAlike ? $before->y - ($scaled->y + $y - $box[1]) : 0.0;
            if ($lower > 0.0 && $lower < self::LOWER_MM && $this->isFree($x, $y + $lower, $box[2] - $box[0], $box[3] - $box[1], $boxes)) {
                $y += $lower;
            }
            $placed[] = $scaled->at($scaled->x + $x - $box[0], $scaled->y + $y - $box[1]);
            $boxes[] = [$x, $y, $x + $box[2] - $box[0], $y + $box[3] - $box[1]];
        }
        $this->begin($part, $placed);
    }

    /** @param list<array{SheetView, list<float>}> $views */
    private function fitsOnOne(array $views, float $scale): bool
    {
        $boxes = [];
        foreach ($views as [$view]) {
            $box = $this->painter->view($view->scaled($scale))->bounds() ?? [0.0, 0.0, 0.0, 0.0];
            $at = $this->place($box[2] - $box[0], $box[3] - $box[1], $boxes);
            if (null === $at) {
                return false;
            }
            $boxes[] = [$at[0], $at[1], $at[0] + $box[2] - $box[0], $at[1] + $box[3] - $box[1]];
        }

        return true;
    }

    /**
     * The first place from the upper left where there is room.
     *
     * @param list<array{float, float, float, float}> $taken
     *
     * @return array{float, float}|null
     */
    private function place(float $wide, float $high, array $taken): ?array
    {
        [$left, $top, $right, $bottom] = PaperFrame::views($this->width, $this->height);
        for ($y = $top + self::APART_MM; $y + $high <= $bottom; $y += self::GRID_MM) {
            for ($x = $left + self::APART_MM; $x + $wide <= $right; $x += self::GRID_MM) {
                if ($this->isFree($x, $y, $wide, $high, $taken)) {
                    return [$x, $y];
                }
            }
        }

        return null;
    }

    /** @param list<array{float, float, float, float}> $taken */
    private function isFree(float $x, float $y, float $wide, float $high, array $taken): bool
    {
        [, , $right, $bottom] = PaperFrame::views($this->width, $this->height);
        $apart = self::APART_MM;
        foreach ([...$taken, PaperFrame::block($this->width, $this->height)] as [$x1, $y1, $x2, $y2]) {
            if ($x < $x2 + $apart && $x + $wide > $x1 - $apart && $y < $y2 + $apart && $y + $high > $y1 - $apart) {
                return false;
            }
        }

        return $x + $wide <= $right - $apart && $y + $high <= $bottom - $apart;
    }

    /** @param list<SheetView> $views of the next sheet; there is none without */
    private function begin(string $part, array $views): void
    {
        if ([] !== $views) {
            $number = \sprintf('%s-%02d', $this->letter, \count($this->sheets) + 1);
            $this->sheets[] = new PrintSheet(($this->newId)(), $this->width, $this->height, $this->centred($views), $part, $number);
        }
    }

    /**
     * @param non-empty-list<SheetView> $views
     *
     * @return non-empty-list<SheetView> the same, in the middle of their room
     */
    private function centred(array $views): array
    {
        [$left, $top, $right, $bottom] = PaperFrame::views($this->width, $this->height);
        [$blockLeft, $blockTop] = PaperFrame::block($this->width, $this->height);
        $boxes = array_values(array_filter(array_map(fn (SheetView $v): ?array => $this->painter->view($v)->bounds(), $views)));
        if ([] === $boxes) {
            return $views;
        }
        $dx = max(0.0, ($left + $right - min(array_column($boxes, 0)) - max(array_column($boxes, 2))) / 2.0);
        // Above the title block, if it is wide enough to come over it.
        $isOver = max(array_column($boxes, 2)) + $dx > $blockLeft - self::APART_MM;
        $foot = $isOver ? max($blockTop, max(array_column($boxes, 3)) + self::APART_MM) : $bottom;
        $dy = max(0.0, ($top + $foot - min(array_column($boxes, 1)) - max(array_column($boxes, 3))) / 2.0);
        foreach ($boxes as $box) {
            if ($box[2] + $dx > $blockLeft && $box[3] + $dy > $blockTop) {
                [$dx, $dy] = [0.0, 0.0];
            }
        }

        return array_map(static fn (SheetView $v): SheetView => $v->at(round($v->x + $dx, 2), round($v->y + $dy, 2)), $views);
    }

    /** @param list<float> $scales from the largest drawing to the smallest */
    private function fitting(SheetView $view, array $scales, float $wide, float $high): float
    {
        $extent = $this->painter->extent($view);
        foreach ($scales as $scale) {
            if (null !== $extent && (($extent[2] - $extent[0]) / $scale > $wide || ($extent[3] - $extent[1]) / $scale > $high)) {
                continue; // nobody has to draw it to see that
            }
            $box = $this->painter->view($view->scaled($scale))->bounds();
            if (null === $box || ($box[2] - $box[0] <= $wide && $box[3] - $box[1] <= $high)) {
                return $scale;
            }
        }

        return $scales[\count($scales) - 1] ?? 100.0;
    }
}

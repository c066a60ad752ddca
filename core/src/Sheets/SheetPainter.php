<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets;

use Plinth\Core\Bodies\BuildingBodies;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Plan\Derivation\DerivedStorey;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Projection\DrawnView;
use Plinth\Core\Projection\Projection;
use Plinth\Core\Projection\View;
use Plinth\Core\Sheets\Exception\UnusableSheet;
use Plinth\Core\Sheets\Internal\SheetSigns;
use Plinth\Core\Sheets\Internal\SheetTables;
use Plinth\Core\Sheets\Model\PrintSheet;
use Plinth\Core\Sheets\Model\SheetView;
use Plinth\Core\Sheets\Model\ViewKind;

/**
 * Draws sheets of a project. What several views show is worked out once.
 */
final class SheetPainter
{
    /** From a drawing down to its title, mm. */
    private const TITLE_OFF_MM = 6.0;
    private const TITLE_MM = 3.5;

    /** @var array<string, DerivedStorey> */
    private array $derived = [];
    /** @var array<string, DrawnView> */
    private array $standing = [];
    private readonly SheetTables $tables;
    private readonly FireOnPlan $fire;

    public function __construct(private readonly SheetSubject $subject)
    {
        $this->fire = new FireOnPlan($subject->plan, function (): array {
            array_map($this->derived(...), $this->subject->plan->storeys);

            return $this->derived;
        });
        $this->tables = new SheetTables($subject, $this->derived(...), $this->fire);
    }

    /**
     * @param int $number of the sheet, from 1
     * @param int $count how many there are
     *
     * @throws UnusableSheet
     */
    public function sheet(PrintSheet $sheet, int $number = 1, int $count = 1): PrintedSheet
    {
        $groups = array_map(fn (SheetView $v): InkGroup => $this->view($v), $sheet->views);
        $scales = [];
        $honest = [];
        foreach ($sheet->views as $view) {
            if ($view->kind->isToScale() && (ViewKind::Standing !== $view->kind || $view->isFromAbove())) {
                $scales[] = self::scale($view->scale);
            }
            $honest[] = $this->subject->honest[$view->of] ?? '';
        }
        $honest = array_filter($honest, self::isSaid(...));
        $honest = [] === $honest ? array_values($this->subject->honest) : $honest;
        $fields = new TitleFields(
            $this->subject->title,
            $sheet->part,
            implode(' ', array_unique($honest)),
            $sheet->owner,
            $sheet->number,
            $sheet->date,
            $sheet->creator,
            $sheet->approved,
            "$number/$count",
        );
        $frame = PaperFrame::of(
            $sheet->width,
            $sheet->height,
            $fields,
            implode(', ', array_unique($scales)),
            $this->subject->written->inWords(),
        );
        $title = trim(implode(' ', array_filter([$sheet->number, $sheet->part], self::isSaid(...))));

        return new PrintedSheet(
            $sheet->width,
            $sheet->height,
            [...$groups, new InkGroup($frame)],
            '' === $title ? "Sheet $number" : $title,
        );
    }

    /** @throws UnusableSheet */
    public function view(SheetView $view): InkGroup
    {
        if (!$view->kind->isToScale()) {
            return new InkGroup($this->tables->of($view), $view->id);
        }
        $paper = new PlanOnPaper($view->scale, $view->x, $view->y);
        $ink = match ($view->kind) {
            ViewKind::Plan => $this->plan($view, $paper),
            ViewKind::Side => $this->side($view, $paper),
            ViewKind::Site => SiteSheet::of(
                $this->subject->boundaries,
                array_map(fn (Storey $s): DerivedStorey => $this->derived($s), $this->subject->plan->storeys),
                $paper,
                $this->subject->written,
                $view,
                $this->subject->bearing,
            ),
            default => $this->standing($view, $paper),
        };
        $clip = null;
        if (null !== $view->window) {
            [[$x1, $y2], [$x2, $y1]] = [$paper->of([$view->window[0], $view->window[1]]), $paper->of([$view->window[2], $view->window[3]])];
            $clip = [$x1, $y1, $x2, $y2];
        }
        $bounds = $clip ?? $ink->bounds();
        $beside = null === $bounds ? new SheetInk() : $this->title($view, $bounds);

        return new InkGroup($ink, $view->id, $clip, null === $clip ? $beside : $beside->with(self::round($clip)), $bounds);
    }

    /** @return array{float, float, float, float}|null how far what a view shows reaches by itself, mm; null where that is not known */
    public function extent(SheetView $view): ?array
    {
        $storey = ViewKind::Plan === $view->kind ? $this->subject->storey($view->of) : null;

        return match (true) {
            null !== $storey => PlanSheet::extent($storey, $this->derived($storey)),
            ViewKind::Side === $view->kind => ($this->subject->sides[$view->of] ?? null)?->drawn?->bounds(),
            default => null,
        };
    }

    /** @param array{float, float, float, float} $box */
    private static function round(array $box): SheetInk
    {
        [$x1, $y1, $x2, $y2] = $box;

        return new SheetInk([], [new InkLine([[$x1, $y1], [$x2, $y1], [$x2, $y2], [$x1, $y2]], InkLine::NARROW, closed: true)]);
    }

    private static function isSaid(string $words): bool
    {
        return '' !== $words;
    }

    private static function scale(float $scale): string
    {
        return '1:'.rtrim(rtrim(number_format($scale, 2, '.', ''), '0'), '.');
    }

    private function derived(Storey $storey): DerivedStorey
    {
        return $this->derived[$storey->id] ??= Derivation::of($storey);
    }

    private function plan(SheetView $view, PlanOnPaper $paper): SheetInk
    {
        $storey = $this->subject->storey($view->of) ?? throw UnusableSheet::showsWhatIsGone();
        $cut = $storey->elevation + PlanSheet::CUT_MM;
        $shafts = [];
        foreach ($this->subject->plan->storeys as $of) {
            foreach ($of->shafts as $shaft) {
                if ($of->elevation + $shaft->base < $cut && $cut < $of->elevation + $shaft->top) {
                    $shafts[] = $shaft->outline->points();
                }
            }
        }

        return PlanSheet::of(
            $storey,
            $this->derived($storey),
            $paper,
            $this->subject->written,
            $this->subject->beside[$view->of] ?? new PlanBeside(),
            $view,
            $this->subject->hatches,
            $shafts,
            $this->fire,
        );
    }

    private function side(SheetView $view, PlanOnPaper $paper): SheetInk
    {
        $side = $this->subject->sides[$view->of] ?? throw UnusableSheet::showsWhatIsGone();
        $levels = [];
        foreach ($this->subject->plan->storeys as $storey) {
            $levels[$storey->id] = [$storey->elevation, $storey->name];
        }

        return SideSheet::of(
            $side->drawn ?? new DrawnView([], []),
            $levels,
            $paper,
            $this->subject->written,
            $this->subject->beside[$view->of] ?? new PlanBeside(),
            $view,
        );
    }

    private function standing(SheetView $view, PlanOnPaper $paper): SheetInk
    {
        $drawn = $this->standing["$view->turn $view->tilt"] ??= Projection::of(
            BuildingBodies::of($this->subject->plan),
            View::standing($view->turn, $view->tilt),
        );

        return SideSheet::of($drawn, [], $paper, view: new SheetView($view->id, ViewKind::Side, '', 0.0, 0.0), ground: null);
    }

    /** @param array{float, float, float, float} $bounds of what it stands under */
    private function title(SheetView $view, array $bounds): SheetInk
    {
        $name = '' !== $view->title ? $view->title : match ($view->kind) {
            ViewKind::Plan => $this->subject->storey($view->of)->name ?? '',
            ViewKind::Side => $this->subject->sides[$view->of]->name ?? '',
            ViewKind::Site => 'Site plan',
            default => $view->isFromAbove() ? 'Roof' : 'The building',
        };
        $y = $bounds[3] + self::TITLE_OFF_MM + self::TITLE_MM;
        $x = $bounds[0];
        $title = new InkText($x, $y, $name, self::TITLE_MM, bold: true);
        if (ViewKind::Standing === $view->kind && !$view->isFromAbove()) {
            return new SheetInk([], [], [$title]);
        }
        $scale = new InkText($x, $y + 4.5, self::scale($view->scale), 2.5);
        $beside = $x + max($title->width(), $scale->width()) + 10.0;
        $ink = (new SheetInk([], [], [$title, $scale]))->with(SheetSigns::scaleBar(
            $view->scale,
            $beside,
            $y + 2.5,
            $this->subject->written,
        ));
        $bar = $ink->bounds();
        if (null !== $this->subject->bearing && null !== $bar && ViewKind::Side !== $view->kind) {
            $ink = $ink->with(SheetSigns::north($bar[2] + 10.0, $y + 0.5, $this->subject->bearing));
        }

        return $ink;
    }
}

<?php

declare(strict_types=1);

namespace Plinth\Core\Exchange\SheetsDocument;

use Plinth\Core\Geometry\Point;
use Plinth\Core\Sheets\Model\PrintSheet;
use Plinth\Core\Sheets\Model\SheetSide;
use Plinth\Core\Sheets\Model\SheetView;
use Plinth\Core\Sheets\Model\Shows;
use Plinth\Core\Sheets\Model\ViewMark;

/** Writes sheets, and the sides that they show, as parts of a plan document. */
final class SheetsWriter
{
    /**
     * @param list<PrintSheet> $sheets
     * @param list<SheetSide> $sides
     *
     * @return array<string, mixed> what is added to a document; nothing of what there is none
     */
    public static function parts(array $sheets, array $sides): array
    {
        return array_filter(['sides' => array_map(self::side(...), $sides), 'sheets' => array_map(self::sheet(...), $sheets)]);
    }

    /** @return array<string, mixed> */
    private static function side(SheetSide $side): array
    {
        return [
            'id' => $side->id, 'name' => $side->name, 'line' => array_map(static fn (Point $p): array => $p->toArray(), $side->line),
            ...($side->cut ? ['cut' => true] : []), ...(null === $side->depth ? [] : ['depth' => $side->depth]),
        ];
    }

    /** @return array<string, mixed> */
    private static function sheet(PrintSheet $sheet): array
    {
        return [
            'id' => $sheet->id, 'width' => $sheet->width, 'height' => $sheet->height,
            ...self::said([
                'part' => $sheet->part, 'number' => $sheet->number, 'owner' => $sheet->owner, 'creator' => $sheet->creator,
                'approved' => $sheet->approved, 'date' => $sheet->date,
            ]),
            'views' => array_map(self::view(...), $sheet->views),
        ];
    }

    /** @return array<string, mixed> */
    private static function view(SheetView $view): array
    {
        return [
            'id' => $view->id, 'kind' => $view->kind->value, ...self::said(['of' => $view->of]), 'at' => [$view->x, $view->y],
            ...($view->kind->isToScale() ? ['scale' => $view->scale] : []),
            ...(null === $view->window ? [] : ['window' => $view->window]), ...(null === $view->width ? [] : ['width' => $view->width]),
            ...self::said(['title' => $view->title, 'words' => $view->words]),
            'shows' => array_map(static fn (Shows $s): string => $s->value, $view->shows),
            ...(0.0 === $view->turn && 0.0 === $view->tilt ? [] : ['turn' => $view->turn, 'tilt' => $view->tilt]),
            ...([] === $view->marks ? [] : ['marks' => array_map(static fn (ViewMark $m): array => [
                'of' => $m->of, ...($m->hidden ? ['hidden' => true] : ['by' => [$m->dx, $m->dy]]),
            ], $view->marks)]),
        ];
    }

    /**
     * @param array<string, string> $words
     *
     * @return array<string, string>
     */
    private static function said(array $words): array
    {
        return array_filter($words, static fn (string $w): bool => '' !== $w);
    }
}

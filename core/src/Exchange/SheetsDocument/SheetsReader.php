<?php

declare(strict_types=1);

namespace Plinth\Core\Exchange\SheetsDocument;

use Plinth\Core\Exchange\Exception\UnreadableDocument;
use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Sheets\Model\PrintSheet;
use Plinth\Core\Sheets\Model\SheetSide;
use Plinth\Core\Sheets\Model\SheetView;
use Plinth\Core\Sheets\Model\Shows;
use Plinth\Core\Sheets\Model\ViewKind;
use Plinth\Core\Sheets\Model\ViewMark;

/** Reads the sheets of a plan document (docs/plan-format.md, since version 2), and the sides that they show. */
final readonly class SheetsReader
{
    private const SIDES_MM = [100.0, 5000.0];

    /**
     * @param list<PrintSheet> $sheets
     * @param list<SheetSide> $sides
     */
    private function __construct(public array $sheets, public array $sides)
    {
    }

    /** @throws UnreadableDocument with the path of what breaks the format */
    public static function read(string $json): self
    {
        $document = JsonValue::parse($json);
        $ids = [];

        return new self(
            array_map(static function (JsonValue $s) use (&$ids): PrintSheet {
                return self::sheet($s, $ids);
            }, $document->list('sheets')),
            array_map(static function (JsonValue $s) use (&$ids): SheetSide {
                return self::side($s, $ids);
            }, $document->list('sides')),
        );
    }

    /** @param array<string, true> $ids */
    private static function side(JsonValue $side, array &$ids): SheetSide
    {
        $side->object(['id', 'name', 'line', 'cut', 'depth']);
        $line = array_map(static fn (JsonValue $p): Point => $p->point(), $side->list('line'));
        if (\count($line) < 2) {
            throw UnreadableDocument::outOfRange($side->get('line')->at, 'two points at least');
        }

        return new SheetSide(
            self::id($side, $ids),
            $side->optional('name')?->text() ?? '',
            $line,
            $side->optional('cut')?->boolean() ?? false,
            $side->optional('depth')?->positive(),
        );
    }

    /** @param array<string, true> $ids */
    private static function sheet(JsonValue $sheet, array &$ids): PrintSheet
    {
        $sheet->object(['id', 'width', 'height', 'part', 'number', 'owner', 'creator', 'approved', 'date', 'views']);
        $sides = array_map(static function (string $key) use ($sheet): float {
            $mm = $sheet->get($key)->number();

            return $mm < self::SIDES_MM[0] || $mm > self::SIDES_MM[1]
                ? throw UnreadableDocument::outOfRange($sheet->get($key)->at, 'between 100 and 5 000 mm')
                : $mm;
        }, ['width', 'height']);
        $text = static fn (string $key): string => $sheet->optional($key)?->text() ?? '';

        return new PrintSheet(
            self::id($sheet, $ids),
            ...[...$sides, array_map(static function (JsonValue $v) use (&$ids): SheetView {
                return self::view($v, $ids);
            }, $sheet->list('views'))],
            ...array_map($text, ['part', 'number', 'owner', 'creator', 'approved', 'date']),
        );
    }

    /** @param array<string, true> $ids */
    private static function view(JsonValue $view, array &$ids): SheetView
    {
        $view->object(['id', 'kind', 'of', 'at', 'scale', 'window', 'width', 'title', 'words', 'shows', 'turn', 'tilt', 'marks']);
        [$x, $y] = $view->get('at')->pair();
        $window = array_map(static fn (JsonValue $v): float => $v->number(), $view->list('window'));
        if ([] !== $window && (4 !== \count($window) || $window[2] <= $window[0] || $window[3] <= $window[1])) {
            throw UnreadableDocument::outOfRange($view->get('window')->at, 'least x and y, then most x and y');
        }

        return new SheetView(
            self::id($view, $ids),
            $view->get('kind')->choice(ViewKind::class),
            $view->optional('of')?->text() ?? '',
            $x,
            $y,
            $view->optional('scale')?->positive(1e6) ?? 100.0,
            4 === \count($window) ? [$window[0], $window[1], $window[2], $window[3]] : null,
            $view->optional('width')?->positive(5000.0),
            $view->optional('title')?->text() ?? '',
            $view->optional('words')?->text(4000) ?? '',
            array_map(static fn (JsonValue $s): Shows => $s->choice(Shows::class), $view->list('shows')),
            $view->optional('turn')?->number() ?? 0.0,
            $view->optional('tilt')?->number() ?? 0.0,
            array_map(static function (JsonValue $mark): ViewMark {
                $mark->object(['of', 'by', 'hidden']);
                [$dx, $dy] = $mark->optional('by')?->pair() ?? [0.0, 0.0];

                return new ViewMark($mark->get('of')->text(), $dx, $dy, $mark->optional('hidden')?->boolean() ?? false);
            }, $view->list('marks')),
        );
    }

    /** @param array<string, true> $ids */
    private static function id(JsonValue $of, array &$ids): string
    {
        $id = $of->get('id')->text(64);
        if (isset($ids[$id])) {
            throw UnreadableDocument::outOfRange($of->get('id')->at, 'an id that nothing else has');
        }
        $ids[$id] = true;

        return $id;
    }
}

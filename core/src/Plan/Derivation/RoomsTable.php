<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Derivation;

use Plinth\Core\Plan\Model\ListedRoom;
use Plinth\Core\Units\Exception\UnitsException;
use Plinth\Core\Units\LengthParser;
use Plinth\Core\Units\LengthUnit;

/**
 * A drawing's own rooms table: read from what was typed, pasted or kept as CSV, and held against the rooms as traced.
 *
 * Lines with columns (tabs, semicolons, or commas with a heading that names them) and lines as they are typed both serve:
 *
 *     3 Tank room 4.80 x 3.54 17.0 m²
 *     Nr;Name;Width;Depth;Area
 *     3;Tank room;4,80;3,54;17,0
 */
final class RoomsTable
{
    private const HEADINGS = [
        'number' => ['no', 'no.', 'nr', 'nr.', 'number', 'room no', 'room no.', '#'],
        'name' => ['name', 'room', 'use', 'room name'],
        'width' => ['width', 'w'],
        'depth' => ['depth', 'd', 'length', 'l'],
        'area' => ['area', 'a', 'net area', 'm2', 'm²', 'area m2', 'area m²', 'area (m2)', 'area (m²)'],
    ];
    /** Order of columns where no heading says otherwise. */
    private const USUAL = ['number', 'name', 'width', 'depth', 'area'];
    /** Areas this near to each other may mean one room where neither number nor name tells. */
    private const SAME_AREA = 0.03;

    /**
     * @param LengthUnit $unit that a bare width or depth takes; where it gives less than a span of a hand, it is taken as metres
     *
     * @return list<ListedRoom>
     */
    public static function read(string $text, LengthUnit $unit): array
    {
        $rooms = [];
        $columns = null;
        foreach (explode("\n", str_replace(["\r\n", "\r"], "\n", $text)) as $line) {
            if ('' === trim($line)) {
                continue;
            }
            $cells = self::cells($line, null !== $columns);
            if (null === $cells) {
                $rooms[] = self::typed($line, $unit);
                continue;
            }
            if (null === $columns && null !== ($headed = self::headings($cells))) {
                $columns = $headed;
                continue;
            }
            $rooms[] = self::row($cells, $columns ?? \array_slice(self::USUAL, 0, \count($cells)), $unit);
        }

        return array_values(array_filter($rooms, static fn (ListedRoom $r): bool => '' !== $r->name));
    }

    /**
     * Each listed room with the traced one it means: by its number, by its name, or by its area alone; then traced ones that
     * are not listed. Those that differ most come first.
     *
     * @param list<ListedRoom> $listed
     * @param list<TracedRoom> $traced
     *
     * @return list<array{listed: ListedRoom|null, traced: TracedRoom|null, by: 'number'|'name'|'area'|null, areaOffM2: float|null,
     *   widthOffMm: float|null, depthOffMm: float|null}>
     * differences are traced minus listed
     */
    public static function compare(array $listed, array $traced): array
    {
        $left = $traced;
        $found = [];
        foreach (['number', 'name', 'area'] as $by) {
            foreach ($listed as $i => $room) {
                if (isset($found[$i])) {
                    continue;
                }
                foreach ($left as $k => $region) {
                    $same = match ($by) {
                        'number' => '' !== $room->number && $room->number === $region->number,
                        'name' => self::plain($room->name) === self::plain($region->name),
                        default => null === $region->room
                            && null !== $room->areaM2
                            && abs($region->netAreaM2 - $room->areaM2) < self::SAME_AREA * $room->areaM2,
                    };
                    if ($same) {
                        $found[$i] = [$region, $by];
                        unset($left[$k]);
                        break;
                    }
                }
            }
        }
        $rows = [];
        foreach ($listed as $i => $room) {
            [$region, $by] = $found[$i] ?? [null, null];
            // Which of its sides a table calls width is anybody's guess: the nearer one.
            [$w, $d] = null === $region ? [null, null] : $region->clear;
            if (null !== $room->width && null !== $w && null !== $d && abs($w - $room->width) > abs($d - $room->width)) {
                [$w, $d] = [$d, $w];
            }
            $rows[] = [
                'listed' => $room, 'traced' => $region, 'by' => $by,
                'areaOffM2' => null === $region || null === $room->areaM2 ? null : $region->netAreaM2 - $room->areaM2,
                'widthOffMm' => null === $w || null === $room->width ? null : $w - $room->width,
                'depthOffMm' => null === $d || null === $room->depth ? null : $d - $room->depth,
            ];
        }
        foreach ($left as $region) {
            $rows[] = [
                'listed' => null,
                'traced' => $region,
                'by' => null,
                'areaOffM2' => null,
                'widthOffMm' => null,
                'depthOffMm' => null,
            ];
        }
        usort($rows, static fn (array $a, array $b): int => self::weight($b) <=> self::weight($a));

        return $rows;
    }

    /**
     * How much a row asks to be looked at: rooms without a counterpart first, then by their difference in parts of the whole.
     *
     * @param array{listed: ?ListedRoom, traced: ?TracedRoom, areaOffM2: ?float, widthOffMm: ?float, depthOffMm: ?float} $row
     */
    private static function weight(array $row): float
    {
        if (null === $row['listed'] || null === $row['traced']) {
            return null === $row['traced'] ? 3.0 : 2.0;
        }

        return max(
            abs($row['areaOffM2'] ?? 0.0) / ($row['listed']->areaM2 ?? 1.0),
            abs($row['widthOffMm'] ?? 0.0) / ($row['listed']->width ?? 1.0),
            abs($row['depthOffMm'] ?? 0.0) / ($row['listed']->depth ?? 1.0),
        );
    }

    /** @return list<string>|null null for a line without columns */
    private static function cells(string $line, bool $headed): ?array
    {
        $separator = match (true) {
            str_contains($line, "\t") => "\t",
            str_contains($line, ';') => ';',
            // A comma may be a decimal one: it parts columns where there are several and none stands between digits alone.
            substr_count($line, ',') >= 2 && ($headed || 0 === preg_match('/\d,\d/', $line)) => ',',
            default => null,
        };

        return null === $separator ? null : array_map(
            static fn (?string $c): string => trim((string) $c),
            str_getcsv($line, $separator, '"', ''),
        );
    }

    /**
     * @param list<string> $cells
     *
     * @return list<string>|null what each column holds; null where this is no heading
     */
    private static function headings(array $cells): ?array
    {
        $columns = array_map(static function (string $cell): string {
            foreach (self::HEADINGS as $key => $words) {
                if (\in_array(mb_strtolower($cell), $words, true)) {
                    return $key;
                }
            }

            return '';
        }, $cells);

        return \in_array('name', $columns, true) ? $columns : null;
    }

    /**
     * @param list<string> $cells
     * @param list<string> $columns
     */
    private static function row(array $cells, array $columns, LengthUnit $unit): ListedRoom
    {
        $of = [];
        foreach ($columns as $i => $key) {
            $of[$key] = $cells[$i] ?? '';
        }

        return new ListedRoom(
            $of['number'] ?? '',
            $of['name'] ?? '',
            self::length($of['width'] ?? '', $unit),
            self::length($of['depth'] ?? '', $unit),
            self::area($of['area'] ?? ''),
        );
    }

    private static function typed(string $line, LengthUnit $unit): ListedRoom
    {
        $area = null;
        if (1 === preg_match('/(\d+(?:[.,]\d+)?)\s*(?:m²|m2|sqm)\s*$/u', $line, $m)) {
            $area = self::area($m[1]);
            $line = substr($line, 0, -\strlen($m[0]));
        }
        $width = $depth = null;
        if (1 === preg_match('/(\d[^\sx×]*(?:\s?(?:mm|cm|m|ft|in))?)\s*[x×]\s*(\d\S*(?:\s?(?:mm|cm|m|ft|in))?)\s*$/u', $line, $m)) {
            [$width, $depth] = [self::length($m[1], $unit), self::length($m[2], $unit)];
            $line = substr($line, 0, -\strlen($m[0]));
        }
        preg_match('/^\s*(\d[\w.\/-]*)?\s*(.*?)\s*$/u', $line, $m);

        return new ListedRoom($m[1] ?? '', $m[2] ?? '', $width, $depth, $area);
    }

    private static function length(string $text, LengthUnit $unit): ?float
    {
        if ('' === $text) {
            return null;
        }
        $plain = self::point($text);
        // No room is a hand wide: 4.80 without a unit is metres, whatever the project's unit.
        if (is_numeric($plain) && (float) $plain * $unit->millimetres() < 100.0) {
            return (float) $plain > 0.0 ? 1000.0 * (float) $plain : null;
        }
        try {
            $mm = LengthParser::parse($plain, $unit)->mm;
        } catch (UnitsException) {
            return null;
        }

        return $mm > 0.0 ? $mm : null;
    }

    private static function area(string $text): ?float
    {
        return 1 === preg_match('/\d+(?:\.\d+)?/', self::point($text), $m) && (float) $m[0] > 0.0 ? (float) $m[0] : null;
    }

    /** A decimal comma becomes a point. */
    private static function point(string $text): string
    {
        return (string) preg_replace('/(\d),(\d)/', '$1.$2', $text);
    }

    private static function plain(string $name): string
    {
        return (string) preg_replace('/[^\p{L}\p{N}]+/u', '', mb_strtolower($name));
    }
}

<?php

declare(strict_types=1);

namespace Plinth\Core\Exchange\Dxf;

use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Derivation\BodyOutline;
use Plinth\Core\Plan\Derivation\DerivedStorey;
use Plinth\Core\Plan\Model\Opening;
use Plinth\Core\Plan\Model\OpeningKind;
use Plinth\Core\Plan\Model\SettingOut;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Plan\Model\Wall;
use Plinth\Core\Projection\DrawnView;
use Plinth\Core\Projection\LineRole;
use Plinth\Core\Stairs\StairPlan;
use Plinth\Core\Units\AreaUnit;
use Plinth\Core\Units\DisplayUnit;
use Plinth\Core\Units\LengthUnit;

/**
 * Writes one storey, or a side or a section, as an ASCII DXF drawing (AC1015), in the unit that its project is drawn in ($INSUNITS); feet
 * and inches in inches.
 *
 * Layers: `walls` (clean outlines, closed polylines), `centre-lines` (a line per wall), `openings` (jambs, leaf and
 * swing), `rooms` (net outlines), `room-names` (text), `stairs` (risers and edges up to the cut, the way up, its words), `stairs-beyond`,
 * `axes` (lines with their labels), `columns`, `boundary`, `remarks`; of a side or a section `cut` (what is cut, closed polylines), `seen`,
 * `hidden`, x along its line and y the height. Coordinates are written so that millimetres read back to the same
 * double.
 * Source of the group codes: the published DXF reference; held against ezdxf and GDAL in the tests.
 */
final class DxfWriter
{
    private const LAYERS = [
        '0' => 7,
        'walls' => 7,
        'centre-lines' => 8,
        'openings' => 3,
        'rooms' => 4,
        'room-names' => 4,
        'stairs' => 7,
        'stairs-beyond' => 8,
        'axes' => 8,
        'columns' => 7,
        'boundary' => 1,
        'remarks' => 1,
    ];
    private const VIEW_LAYERS = ['0' => 7, 'cut' => 7, 'seen' => 8, 'hidden' => 9, 'remarks' => 1];
    /** the published reference's numbers of units */
    private const INSUNITS = ['in' => '1', 'ft' => '2', 'mm' => '4', 'cm' => '5', 'm' => '6'];
    private const TEXT_HEIGHT_MM = 180.0;
    /** by how far axes run on beyond what they set out */
    private const AXIS_BEYOND_MM = 1500.0;

    /** @var list<string> */
    private array $lines = [];
    private int $handle = 0x100;

    /**
     * @param list<string> $remarks
     * @param array<int|string, int> $layers colours by name
     */
    private function __construct(
        private readonly DisplayUnit $unit,
        private readonly AreaUnit $areas,
        private readonly array $remarks,
        private readonly array $layers = self::LAYERS,
    ) {
    }

    /**
     * @param list<string> $remarks what whoever reads it should know: as comments, and as text beside the drawing
     * @param AreaUnit|null $areas what is usual beside the lengths where it is null
     * @param list<StairPlan> $stairs as the plan of the storey shows them
     */
    public static function write(
        Storey $storey,
        DerivedStorey $derived,
        SettingOut $settingOut = new SettingOut(),
        DisplayUnit $unit = DisplayUnit::Millimetre,
        array $remarks = [],
        ?AreaUnit $areas = null,
        array $stairs = [],
    ): string {
        return (new self($unit, $areas ?? AreaUnit::usualFor($unit), $remarks))->drawing($storey, $derived, $settingOut, $stairs);
    }

    /** @param list<string> $remarks */
    public static function view(DrawnView $view, DisplayUnit $unit = DisplayUnit::Millimetre, array $remarks = []): string
    {
        $writer = new self($unit, AreaUnit::usualFor($unit), $remarks, self::VIEW_LAYERS);

        return $writer->written(static function () use ($writer, $view): void {
            foreach ($view->faces as $face) {
                foreach ([$face->outer, ...$face->holes] as $ring) {
                    $writer->polyline('cut', $ring);
                }
            }
            foreach ($view->lines as $line) {
                if (LineRole::Cut !== $line->role) {
                    $writer->line(LineRole::Visible === $line->role ? 'seen' : 'hidden', $line->from, $line->to);
                }
            }
            [$left, $low] = $view->bounds() ?? [0.0, 0.0];
            $writer->beside($left, $low);
        });
    }

    /** @param list<StairPlan> $stairs */
    private function drawing(Storey $storey, DerivedStorey $derived, SettingOut $settingOut, array $stairs): string
    {
        return $this->written(function () use ($storey, $derived, $settingOut, $stairs): void {
            $this->entities($storey, $derived);
            array_map($this->stair(...), $stairs);
            $this->settingOut($settingOut, $derived);
            $ends = array_merge(...array_map(static fn (Wall $w): array => [$w->from, $w->to], $storey->walls));
            $this->beside(
                [] === $ends ? 0.0 : min(array_map(static fn (Point $p): float => $p->x, $ends)),
                [] === $ends ? 0.0 : min(array_map(static fn (Point $p): float => $p->y, $ends)),
            );
        });
    }

    /** @param callable(): void $drawn */
    private function written(callable $drawn): string
    {
        $entities = $this->captured($drawn);
        foreach ($this->remarks as $remark) {
            $this->put(999, $this->escaped($remark));
        }
        $this->header();
        $this->tables();
        $this->blocks();
        $this->section('ENTITIES', fn () => array_push($this->lines, ...$entities));
        $this->objects();
        $this->put(0, 'EOF');

        return implode("\r\n", $this->lines)."\r\n";
    }

    private function entities(Storey $storey, DerivedStorey $derived): void
    {
        foreach ($derived->outlines as $outline) {
            foreach ([$outline->outer, ...$outline->holes] as $ring) {
                $this->polyline('walls', $ring);
            }
        }
        $walls = [];
        foreach ($storey->walls as $wall) {
            $walls[$wall->id] = $wall;
            $this->line('centre-lines', $wall->from->toArray(), $wall->to->toArray());
        }
        foreach ($storey->openings as $opening) {
            if (isset($derived->openings[$opening->id])) {
                $this->opening($opening, $walls[$opening->wall], $derived->openings[$opening->id]);
            }
        }
        foreach ($derived->regions as $region) {
            foreach ([$region->polygon, ...$region->holes] as $ring) {
                $this->polyline('rooms', $ring);
            }
            if (null !== $region->room) {
                $this->text(
                    'room-names',
                    trim($region->room->number.' '.$region->room->name),
                    $region->room->anchor->x,
                    $region->room->anchor->y,
                );
                $this->text(
                    'room-names',
                    $this->areas->written($region->netAreaMm2 / 1e6),
                    $region->room->anchor->x,
                    $region->room->anchor->y - 1.6 * self::TEXT_HEIGHT_MM,
                );
            }
        }
    }

    private function stair(StairPlan $plan): void
    {
        $drawn = [
            'stairs' => [...$plan->seen, $plan->way, ...null === $plan->cut ? [] : [$plan->cut]],
            'stairs-beyond' => $plan->beyond,
        ];
        foreach ($drawn as $layer => $lines) {
            foreach ($lines as $line) {
                foreach (\array_slice($line, 1) as $i => $to) {
                    $this->line($layer, $line[$i], $to);
                }
            }
        }
        $this->text('stairs', $plan->words, ...$plan->way[0]);
    }

    private function settingOut(SettingOut $settingOut, DerivedStorey $derived): void
    {
        foreach ($settingOut->columns as $ring) {
            $this->polyline('columns', $ring);
        }
        foreach ($settingOut->boundaries as $ring) {
            $this->polyline('boundary', $ring);
        }
        $points = array_merge(...array_map(static fn (BodyOutline $o): array => $o->outer, $derived->outlines), ...$settingOut->columns);
        foreach ($settingOut->axes as $axis) {
            $points[] = 'x' === $axis['along'] ? [$axis['at'], $points[0][1] ?? 0.0] : [$points[0][0] ?? 0.0, $axis['at']];
        }
        if ([] === $points) {
            return;
        }
        [$xs, $ys] = [array_column($points, 0), array_column($points, 1)];
        foreach ($settingOut->axes as ['label' => $label, 'along' => $along, 'at' => $at]) {
            [$from, $to] = 'x' === $along
                ? [[$at, min($ys) - self::AXIS_BEYOND_MM], [$at, max($ys) + self::AXIS_BEYOND_MM]]
                : [[min($xs) - self::AXIS_BEYOND_MM, $at], [max($xs) + self::AXIS_BEYOND_MM, $at]];
            $this->line('axes', $from, $to);
            $end = 'x' === $along ? $to : $from;
            $this->text('axes', $label, $end[0], $end[1]);
        }
    }

    /** @param list<array{float, float}> $piece near right, far right, far left, near left */
    private function opening(Opening $opening, Wall $wall, array $piece): void
    {
        [$nearRight, $farRight, $farLeft, $nearLeft] = $piece;
        $this->line('openings', $nearRight, $nearLeft);
        $this->line('openings', $farRight, $farLeft);
        if (OpeningKind::Door !== $opening->kind) {
            return;
        }
        // The leaf stands open at a right angle to the wall on the side it swings to, hung on the near or far jamb.
        $swingsLeft = 'left' === $opening->swing;
        $hungNear = 'left' === $opening->hand;
        [$near, $far] = $swingsLeft ? [$nearLeft, $farLeft] : [$nearRight, $farRight];
        [$hinge, $latch] = $hungNear ? [$near, $far] : [$far, $near];
        $across = atan2($latch[1] - $hinge[1], $latch[0] - $hinge[0]);
        $wallAngle = atan2($wall->to->y - $wall->from->y, $wall->to->x - $wall->from->x);
        $open = $wallAngle + ($swingsLeft ? \M_PI_2 : -\M_PI_2);
        $this->line('openings', $hinge, [$hinge[0] + $opening->width * cos($open), $hinge[1] + $opening->width * sin($open)]);
        // Arcs run counter-clockwise from their start.
        $counterClockwise = sin($open - $across) > 0.0;
        $this->arc('openings', $hinge, $opening->width, $counterClockwise ? $across : $open, $counterClockwise ? $open : $across);
    }

    /** Below what is drawn, where nobody can take it for part of the plan. */
    /** What whoever reads it should know, under the drawing's lower left corner. */
    private function beside(float $x, float $y): void
    {
        foreach ($this->remarks as $i => $remark) {
            $this->text('remarks', $remark, $x, $y - (8.0 + 2.0 * $i) * self::TEXT_HEIGHT_MM);
        }
    }

    private function header(): void
    {
        $this->section('HEADER', function (): void {
            foreach ([
                ['$ACADVER', 1, 'AC1015'],
                ['$HANDSEED', 5, 'FFFFF'],
                ['$INSUNITS', 70, self::INSUNITS[$this->unit->drawn()->value]],
                ['$MEASUREMENT', 70, $this->unit->bare()->isImperial() ? '0' : '1'],
            ] as [$name, $code, $value]) {
                $this->put(9, $name);
                $this->put($code, $value);
            }
        });
    }

    private function tables(): void
    {
        $this->section('TABLES', function (): void {
            $this->table('VPORT', 0, static fn () => null);
            $this->table('LTYPE', 3, function (string $owner): void {
                foreach (['ByBlock', 'ByLayer', 'Continuous'] as $name) {
                    $this->record('LTYPE', $owner, 'AcDbLinetypeTableRecord');
                    $this->puts([[2, $name], [70, '0'], [3, ''], [72, '65'], [73, '0'], [40, '0.0']]);
                }
            });
            $this->table('LAYER', \count($this->layers), function (string $owner): void {
                foreach ($this->layers as $name => $colour) {
                    $this->record('LAYER', $owner, 'AcDbLayerTableRecord');
                    $this->puts([[2, (string) $name], [70, '0'], [62, (string) $colour], [6, 'Continuous']]);
                }
            });
            $this->table('STYLE', 1, function (string $owner): void {
                $this->record('STYLE', $owner, 'AcDbTextStyleTableRecord');
                $this->puts([
                    [2, 'Standard'], [70, '0'], [40, '0.0'], [41, '1.0'], [50, '0.0'], [71, '0'], [42, '2.5'], [3, 'txt'],
                    [4, ''],
                ]);
            });
            $this->table('VIEW', 0, static fn () => null);
            $this->table('UCS', 0, static fn () => null);
            $this->table('APPID', 1, function (string $owner): void {
                $this->record('APPID', $owner, 'AcDbRegAppTableRecord');
                $this->puts([[2, 'ACAD'], [70, '0']]);
            });
            $this->table('DIMSTYLE', 0, static fn () => null);
            $this->table('BLOCK_RECORD', 2, function (string $owner): void {
                foreach (['*Model_Space' => '1F', '*Paper_Space' => '1B'] as $name => $handle) {
                    $this->record('BLOCK_RECORD', $owner, 'AcDbBlockTableRecord', $handle);
                    $this->puts([[2, $name], [340, '0']]);
                }
            });
        });
    }

    private function blocks(): void
    {
        $this->section('BLOCKS', function (): void {
            foreach (['*Model_Space' => '1F', '*Paper_Space' => '1B'] as $name => $owner) {
                $this->puts([
                    [0, 'BLOCK'], [5, $this->nextHandle()], [330, $owner], [100, 'AcDbEntity'], [8, '0'],
                    [100, 'AcDbBlockBegin'], [2, $name], [70, '0'], [10, '0.0'], [20, '0.0'], [30, '0.0'], [3, $name], [1, ''],
                ]);
                $this->puts([[0, 'ENDBLK'], [5, $this->nextHandle()], [330, $owner], [100, 'AcDbEntity'], [8, '0'], [100, 'AcDbBlockEnd']]);
            }
        });
    }

    private function objects(): void
    {
        $this->section('OBJECTS', function (): void {
            $groups = $this->nextHandle();
            $root = 'C';
            $this->puts([
                [0, 'DICTIONARY'], [5, $root], [330, '0'], [100, 'AcDbDictionary'], [281, '1'], [3, 'ACAD_GROUP'],
                [350, $groups],
            ]);
            $this->puts([[0, 'DICTIONARY'], [5, $groups], [330, $root], [100, 'AcDbDictionary'], [281, '1']]);
        });
    }

    private function table(string $name, int $count, callable $records): void
    {
        $handle = $this->nextHandle();
        $this->puts([[0, 'TABLE'], [2, $name], [5, $handle], [330, '0'], [100, 'AcDbSymbolTable'], [70, (string) $count]]);
        if ('DIMSTYLE' === $name) {
            $this->put(100, 'AcDbDimStyleTable');
        }
        $records($handle);
        $this->put(0, 'ENDTAB');
    }

    private function record(string $type, string $owner, string $class, ?string $handle = null): void
    {
        $this->puts([[0, $type], [5, $handle ?? $this->nextHandle()], [330, $owner], [100, 'AcDbSymbolTableRecord'], [100, $class]]);
    }

    /** @param list<array{float, float}> $ring */
    private function polyline(string $layer, array $ring): void
    {
        $this->entity('LWPOLYLINE', $layer, 'AcDbPolyline');
        $this->puts([[90, (string) \count($ring)], [70, '1']]);
        foreach ($ring as [$x, $y]) {
            $this->puts([[10, $this->number($x)], [20, $this->number($y)]]);
        }
    }

    /**
     * @param array{float, float} $a
     * @param array{float, float} $b
     */
    private function line(string $layer, array $a, array $b): void
    {
        $this->entity('LINE', $layer, 'AcDbLine');
        $this->puts([
            [10, $this->number($a[0])], [20, $this->number($a[1])], [30, '0.0'], [11, $this->number($b[0])],
            [21, $this->number($b[1])], [31, '0.0'],
        ]);
    }

    /** @param array{float, float} $centre */
    private function arc(string $layer, array $centre, float $radius, float $startRad, float $endRad): void
    {
        $this->entity('ARC', $layer, 'AcDbCircle');
        $this->puts([
            [10, $this->number($centre[0])],
            [20, $this->number($centre[1])],
            [30, '0.0'],
            [40, $this->number($radius)],
            [100, 'AcDbArc'],
            [50, $this->real(rad2deg($startRad))],
            [51, $this->real(rad2deg($endRad))],
        ]);
    }

    private function text(string $layer, string $text, float $x, float $y): void
    {
        $this->entity('TEXT', $layer, 'AcDbText');
        $this->puts([
            [10, $this->number($x)],
            [20, $this->number($y)],
            [30, '0.0'],
            [40, $this->number(self::TEXT_HEIGHT_MM)],
            [1, $this->escaped($text)],
            [72, '1'],
            [11, $this->number($x)],
            [21, $this->number($y)],
            [31, '0.0'],
            [100, 'AcDbText'],
        ]);
    }

    private function entity(string $type, string $layer, string $class): void
    {
        $this->puts([[0, $type], [5, $this->nextHandle()], [330, '1F'], [100, 'AcDbEntity'], [8, $layer], [100, $class]]);
    }

    /** Line breaks would end the value, and AC1015 is not Unicode: other characters are written as \U+XXXX. */
    private function escaped(string $text): string
    {
        $clean = (string) preg_replace('/[\x00-\x1F\x7F]+/u', ' ', mb_scrub($text));

        return implode('', array_map(
            static fn (string $c): string => \strlen($c) > 1 ? implode(
                '',
                array_map(
                    static fn (string $unit): string => \sprintf('\\U+%s', strtoupper(bin2hex($unit))),
                    str_split(mb_convert_encoding($c, 'UTF-16BE', 'UTF-8'), 2),
                ),
            ) : $c,
            mb_str_split($clean),
        ));
    }

    private function number(float $mm): string
    {
        return $this->real(LengthUnit::Millimetre === $this->unit->drawn() ? $mm : $mm / $this->unit->drawn()->millimetres());
    }

    private function real(float $value): string
    {
        $text = (string) json_encode($value);

        return str_contains($text, '.') || str_contains($text, 'e') ? $text : $text.'.0';
    }

    private function section(string $name, callable $content): void
    {
        $this->puts([[0, 'SECTION'], [2, $name]]);
        $content();
        $this->put(0, 'ENDSEC');
    }

    /** @param list<array{int, string}> $pairs */
    private function puts(array $pairs): void
    {
        foreach ($pairs as [$code, $value]) {
            $this->put($code, $value);
        }
    }

    private function put(int $code, string $value): void
    {
        $this->lines[] = (string) $code;
        $this->lines[] = $value;
    }

    /** @return list<string> the lines that the content puts */
    private function captured(callable $content): array
    {
        $content();
        $lines = $this->lines;
        $this->lines = [];

        return $lines;
    }

    private function nextHandle(): string
    {
        return strtoupper(dechex(++$this->handle));
    }
}

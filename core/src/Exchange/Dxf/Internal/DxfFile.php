<?php

declare(strict_types=1);

namespace Plinth\Core\Exchange\Dxf\Internal;

use Plinth\Core\Units\DisplayUnit;
use Plinth\Core\Units\LengthUnit;

/**
 * An ASCII DXF drawing (AC1015) as it is written: layers, entities on them, and dimensions with the blocks that show them.
 *
 * Source of the group codes: the published DXF reference; held against ezdxf and GDAL in the tests. Coordinates are given in millimetres
 * and written in the drawing's unit, so that they read back to the same double where that is the millimetre.
 *
 * @internal
 *
 * @phpstan-type Corner array{float, float, float}
 */
final class DxfFile
{
    public const CONTINUOUS = 'Continuous';
    public const DASHED = 'DASHED';
    public const CHAIN = 'CHAIN';
    /** the published reference's numbers of units */
    private const INSUNITS = ['in' => '1', 'ft' => '2', 'mm' => '4', 'cm' => '5', 'm' => '6'];
    /** Kinds of lines: strokes and gaps one after another, mm. */
    private const KINDS = [self::DASHED => [240.0, -120.0], self::CHAIN => [600.0, -120.0, 25.0, -120.0]];

    /** @var list<string> */
    private array $lines = [];
    private int $handle = 0x100;
    /** @var array<string, list<string>> what is in blocks, by name */
    private array $blocks = [];
    /** @var array<string, string> handles of blocks */
    private array $owners = [];
    private string $owner = '1F';

    /**
     * @param array<string, array{int, string}> $layers colour and kind of line, by name
     * @param list<string> $remarks
     */
    public function __construct(private readonly DisplayUnit $unit, private readonly array $layers, private readonly array $remarks)
    {
    }

    /**
     * A line through corners, or round: each with the bulge of the edge that begins there, tan of a quarter of its angle.
     *
     * @param list<Corner> $corners
     */
    public function polyline(string $layer, array $corners, bool $isClosed = true, ?string $kind = null): void
    {
        $this->entity('LWPOLYLINE', $layer, 'AcDbPolyline', $kind);
        $this->puts([[90, (string) \count($corners)], [70, $isClosed ? '1' : '0']]);
        foreach ($corners as [$x, $y, $bulge]) {
            $this->puts([[10, $this->number($x)], [20, $this->number($y)]]);
            if (0.0 !== $bulge) {
                $this->put(42, self::real($bulge));
            }
        }
    }

    /**
     * @param array{float, float} $a
     * @param array{float, float} $b
     */
    public function line(string $layer, array $a, array $b, ?string $kind = null): void
    {
        $this->entity('LINE', $layer, 'AcDbLine', $kind);
        $this->puts([
            [10, $this->number($a[0])], [20, $this->number($a[1])], [30, '0.0'], [11, $this->number($b[0])],
            [21, $this->number($b[1])], [31, '0.0'],
        ]);
    }

    /**
     * @param array{float, float} $centre
     * @param float $start rad; it runs counter-clockwise from there
     */
    public function arc(string $layer, array $centre, float $radius, float $start, float $end): void
    {
        $this->entity('ARC', $layer, 'AcDbCircle');
        $this->puts([
            [10, $this->number($centre[0])], [20, $this->number($centre[1])], [30, '0.0'], [40, $this->number($radius)],
            [100, 'AcDbArc'], [50, self::real(rad2deg($start))], [51, self::real(rad2deg($end))],
        ]);
    }

    /** @param array{float, float} $centre */
    public function circle(string $layer, array $centre, float $radius): void
    {
        $this->entity('CIRCLE', $layer, 'AcDbCircle');
        $this->puts([
            [10, $this->number($centre[0])], [20, $this->number($centre[1])], [30, '0.0'], [40, $this->number($radius)],
        ]);
    }

    /** Words whose foot's middle stands at a place. */
    public function text(string $layer, string $text, float $x, float $y, float $height, float $degrees = 0.0): void
    {
        $this->entity('TEXT', $layer, 'AcDbText');
        $this->puts([
            [10, $this->number($x)], [20, $this->number($y)], [30, '0.0'], [40, $this->number($height)],
            [1, self::escaped($text)], ...(0.0 === $degrees ? [] : [[50, self::real($degrees)]]),
            [72, '1'], [11, $this->number($x)], [21, $this->number($y)], [31, '0.0'], [100, 'AcDbText'],
        ]);
    }

    /**
     * An area that is filled, or hatched.
     *
     * @param list<list<Corner>> $rings what lies in an odd number of them
     * @param list<float> $directions of its lines, degrees; filled without any
     * @param float $apart mm between two lines
     */
    public function hatch(string $layer, array $rings, array $directions = [], float $apart = 100.0): void
    {
        $this->entity('HATCH', $layer, 'AcDbHatch');
        $isSolid = [] === $directions;
        $this->puts([
            [10, '0.0'], [20, '0.0'], [30, '0.0'], [210, '0.0'], [220, '0.0'], [230, '1.0'], [2, $isSolid ? 'SOLID' : 'LINES'],
            [70, $isSolid ? '1' : '0'], [71, '0'], [91, (string) \count($rings)],
        ]);
        foreach ($rings as $ring) {
            $this->puts([[92, '2'], [72, '1'], [73, '1'], [93, (string) \count($ring)]]);
            foreach ($ring as [$x, $y, $bulge]) {
                $this->puts([[10, $this->number($x)], [20, $this->number($y)], [42, self::real($bulge)]]);
            }
            $this->put(97, '0');
        }
        $this->puts([[75, '0'], [76, $isSolid ? '1' : '0']]);
        if (!$isSolid) {
            $this->puts([[52, '0.0'], [41, '1.0'], [77, '0'], [78, (string) \count($directions)]]);
            foreach ($directions as $degrees) {
                [$dx, $dy] = [-$apart * sin(deg2rad($degrees)), $apart * cos(deg2rad($degrees))];
                $this->puts([
                    [53, self::real($degrees)], [43, '0.0'], [44, '0.0'], [45, $this->number($dx)], [46, $this->number($dy)], [79, '0'],
                ]);
            }
        }
        $this->puts([[98, '1'], [10, '0.0'], [20, '0.0']]);
    }

    /**
     * A dimension between two places, that goes with them where somebody moves them.
     *
     * @param array{float, float} $from what it measures from
     * @param array{float, float} $to
     * @param array{array{float, float}, array{float, float}} $on ends of its line
     */
    public function dimension(string $layer, array $from, array $to, array $on, string $figure, float $height): void
    {
        $name = '*D'.(\count($this->blocks) + 1);
        [$a, $b] = $on;
        $degrees = rad2deg(atan2($b[1] - $a[1], $b[0] - $a[0]));
        // Read from below or from the right (ISO 129-1).
        $reads = $degrees > 90.0 + 1e-6 ? $degrees - 180.0 : ($degrees <= -90.0 + 1e-6 ? $degrees + 180.0 : $degrees);
        [$ux, $uy] = [cos(deg2rad($reads)), sin(deg2rad($reads))];
        $text = [($a[0] + $b[0]) / 2.0 - 0.4 * $height * $uy, ($a[1] + $b[1]) / 2.0 + 0.4 * $height * $ux];
        $this->block($name, function () use ($layer, $from, $to, $a, $b, $text, $reads, $ux, $uy, $figure, $height): void {
            $this->line($layer, $a, $b);
            foreach ([[$from, $a], [$to, $b]] as [$place, $end]) {
                $this->line($layer, $place, $end);
                [$dx, $dy] = [0.3 * $height * ($ux - $uy), 0.3 * $height * ($uy + $ux)];
                $this->line($layer, [$end[0] - $dx, $end[1] - $dy], [$end[0] + $dx, $end[1] + $dy]);
            }
            $this->text($layer, $figure, $text[0], $text[1], $height, $reads);
        });
        $this->entity('DIMENSION', $layer, 'AcDbDimension');
        // The line of a rotated dimension runs as it was drawn, whatever lies between the places.
        $this->puts([
            [2, $name], [10, $this->number($b[0])], [20, $this->number($b[1])], [30, '0.0'],
            [11, $this->number($text[0])], [21, $this->number($text[1])], [31, '0.0'],
            [70, '32'], [1, self::escaped($figure)], [3, 'Standard'], [100, 'AcDbAlignedDimension'],
            [13, $this->number($from[0])], [23, $this->number($from[1])], [33, '0.0'],
            [14, $this->number($to[0])], [24, $this->number($to[1])], [34, '0.0'],
            [50, self::real($degrees)], [100, 'AcDbRotatedDimension'],
        ]);
    }

    /** @param callable(): void $drawn */
    private function block(string $name, callable $drawn): void
    {
        $before = [$this->lines, $this->owner];
        $this->owners[$name] = $this->nextHandle();
        [$this->lines, $this->owner] = [[], $this->owners[$name]];
        $drawn();
        $this->blocks[$name] = $this->lines;
        [$this->lines, $this->owner] = $before;
    }

    public function written(): string
    {
        $entities = $this->lines;
        $this->lines = [];
        foreach ($this->remarks as $remark) {
            $this->put(999, self::escaped($remark));
        }
        $this->header();
        $this->tables();
        $this->blocks();
        $this->section('ENTITIES', fn () => array_push($this->lines, ...$entities));
        $this->objects();
        $this->put(0, 'EOF');

        return implode("\r\n", $this->lines)."\r\n";
    }

    private function header(): void
    {
        $this->section('HEADER', function (): void {
            foreach ([
                ['$ACADVER', 1, 'AC1015'],
                ['$HANDSEED', 5, 'FFFFFFF'],
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
            $this->table('LTYPE', 3 + \count(self::KINDS), function (string $owner): void {
                foreach (['ByBlock', 'ByLayer', self::CONTINUOUS] as $name) {
                    $this->record('LTYPE', $owner, 'AcDbLinetypeTableRecord');
                    $this->puts([[2, $name], [70, '0'], [3, ''], [72, '65'], [73, '0'], [40, '0.0']]);
                }
                foreach (self::KINDS as $name => $strokes) {
                    $this->record('LTYPE', $owner, 'AcDbLinetypeTableRecord');
                    $long = array_sum(array_map(abs(...), $strokes));
                    $this->puts([[2, $name], [70, '0'], [3, ''], [72, '65'], [73, (string) \count($strokes)], [40, $this->number($long)]]);
                    foreach ($strokes as $stroke) {
                        $this->puts([[49, $this->number($stroke)], [74, '0']]);
                    }
                }
            });
            $this->table('LAYER', \count($this->layers) + 1, function (string $owner): void {
                foreach (['0' => [7, self::CONTINUOUS]] + $this->layers as $name => [$colour, $kind]) {
                    $this->record('LAYER', $owner, 'AcDbLayerTableRecord');
                    $this->puts([[2, (string) $name], [70, '0'], [62, (string) $colour], [6, $kind]]);
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
            $this->table('DIMSTYLE', 1, function (string $owner): void {
                $this->puts([
                    [0, 'DIMSTYLE'], [105, $this->nextHandle()], [330, $owner], [100, 'AcDbSymbolTableRecord'],
                    [100, 'AcDbDimStyleTableRecord'], [2, 'Standard'], [70, '0'],
                ]);
            });
            $this->table('BLOCK_RECORD', 2 + \count($this->owners), function (string $owner): void {
                foreach (['*Model_Space' => '1F', '*Paper_Space' => '1B'] + $this->owners as $name => $handle) {
                    $this->record('BLOCK_RECORD', $owner, 'AcDbBlockTableRecord', $handle);
                    $this->puts([[2, $name], [340, '0']]);
                }
            });
        });
    }

    private function blocks(): void
    {
        $this->section('BLOCKS', function (): void {
            foreach (['*Model_Space' => '1F', '*Paper_Space' => '1B'] + $this->owners as $name => $owner) {
                $isNameless = isset($this->owners[$name]) ? '1' : '0';
                $this->puts([
                    [0, 'BLOCK'], [5, $this->nextHandle()], [330, $owner], [100, 'AcDbEntity'], [8, '0'],
                    [100, 'AcDbBlockBegin'], [2, $name], [70, $isNameless], [10, '0.0'], [20, '0.0'], [30, '0.0'],
                    [3, $name], [1, ''],
                ]);
                array_push($this->lines, ...$this->blocks[$name] ?? []);
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

    private function entity(string $type, string $layer, string $class, ?string $kind = null): void
    {
        $this->puts([
            [0, $type], [5, $this->nextHandle()], [330, $this->owner], [100, 'AcDbEntity'], [8, $layer],
            ...(null === $kind ? [] : [[6, $kind]]), [100, $class],
        ]);
    }

    /** Line breaks would end the value, and AC1015 is not Unicode: other characters are written as \U+XXXX. */
    private static function escaped(string $text): string
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
        return self::real(LengthUnit::Millimetre === $this->unit->drawn() ? $mm : $mm / $this->unit->drawn()->millimetres());
    }

    private static function real(float $value): string
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

    private function nextHandle(): string
    {
        return strtoupper(dechex(++$this->handle));
    }
}

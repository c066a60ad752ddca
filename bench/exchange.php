<?php

declare(strict_types=1);

// The whole building in every format it leaves in, some 5000 walls of it, beside a plain write of as many bytes. Bodies and shapes are worked
// out within: whoever asks for a file has none of them yet.

use Plinth\Core\Exchange\Csv\CsvTable;
use Plinth\Core\Exchange\Dxf\DxfWriter;
use Plinth\Core\Exchange\GeoJson\GeoJsonWriter;
use Plinth\Core\Exchange\Ifc\IfcProject;
use Plinth\Core\Exchange\Ifc\IfcWriter;
use Plinth\Core\Exchange\Tables\BuildingTables;
use Plinth\Core\Exchange\Tables\OdsWriter;
use Plinth\Core\Exchange\Tables\XlsxWriter;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Plan\Model\Plan;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Sheets\PlanBeside;
use Plinth\Core\Sheets\SheetSubject;
use Plinth\Core\Tests\Plan\Plans;

require __DIR__.'/measure.php';

ini_set('memory_limit', '4G');

$storeys = [];
for ($k = 0; $k < 5; ++$k) {
    $of = Plans::standing(30_000 + $k, 26, 20);
    $walls = array_map(static fn ($w) => new Plinth\Core\Plan\Model\Wall("s$k $w->id", $w->from, $w->to, $w->thickness), $of->walls);
    $openings = array_map(static fn ($o) => new Plinth\Core\Plan\Model\Opening("s$k $o->id", "s$k $o->wall", $o->kind, $o->offset, $o->width, $o->sill, $o->height), $of->openings);
    $storeys[] = new Storey("s$k", "Storey $k", 3000.0 * $k, 3000.0, $walls, $openings);
}
$plan = new Plan($storeys);
$subject = new SheetSubject('Bench', $plan);
printf("== %d walls and %d openings on %d storeys\n", array_sum(array_map(static fn (Storey $s): int => count($s->walls), $storeys)), array_sum(array_map(static fn (Storey $s): int => count($s->openings), $storeys)), count($storeys));
$file = (string) tempnam(sys_get_temp_dir(), 'exchange');
foreach ([
    'IFC4' => static fn (): string => IfcWriter::write($plan, new IfcProject('bench', 'Bench')),
    'DXF' => static fn (): string => DxfWriter::building(array_map(static fn (Storey $s): array => [$s, Derivation::of($s), new PlanBeside()], $storeys)),
    'ODS' => static fn (): string => OdsWriter::write(BuildingTables::of($subject)),
    'XLSX' => static fn (): string => XlsxWriter::write(BuildingTables::of($subject)),
    'CSV' => static fn (): string => CsvTable::zip(BuildingTables::of($subject)),
    'GeoJSON' => static fn (): string => GeoJsonWriter::write($plan),
] as $format => $write) {
    $begin = hrtime(true);
    $bytes = $write();
    $seconds = (hrtime(true) - $begin) / 1e9;
    $plain = least(static fn () => file_put_contents($file, $bytes), 3);
    printf("%-8s %6.2f s for %5.1f MB, a plain write of as many bytes %.1f ms\n", $format, $seconds, strlen($bytes) / 1e6, $plain);
}
unlink($file);

<?php

declare(strict_types=1);

// A set of twenty A1 sheets with a storey of some three hundred walls each: drawn, written, printed to PDF in the sandbox and bound, as the
// worker does it, beside what rsvg-convert alone takes for the same SVG. Both take turns; as many converters work side by side in both.

use Plinth\Core\Exchange\Svg\SvgWriter;
use Plinth\Core\Plan\Model\Plan;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Sheets\Model\PrintSheet;
use Plinth\Core\Sheets\PaperSize;
use Plinth\Core\Sheets\PlanBeside;
use Plinth\Core\Sheets\PlanningSet;
use Plinth\Core\Sheets\SheetPainter;
use Plinth\Core\Sheets\SheetSubject;
use Plinth\Core\Tests\Plan\Plans;
use Plinth\Server\Change\DiskSpace;
use Plinth\Server\Files\LocalStore;
use Plinth\Server\Sheets\SheetPrinter;
use Plinth\Server\Source\FileStore;
use Plinth\Server\Tests\Files;

require __DIR__.'/../vendor/autoload.php';

ini_set('memory_limit', '2G');

const SHEETS = 20;
const AT_ONCE = 4;
const ROUNDS = 7;

/** @param list<list<string>> $commands side by side */
function convertSideBySide(array $commands): void
{
    foreach (array_chunk($commands, AT_ONCE) as $chunk) {
        $processes = array_map(static fn (array $c) => proc_open($c, [], $pipes, null, ['FONTCONFIG_FILE' => __DIR__.'/../core/fonts/fonts.conf', 'PATH' => '/usr/bin:/bin']), $chunk);
        foreach ($processes as $process) {
            if (false === $process || 0 !== proc_close($process)) {
                throw new RuntimeException('A converter failed.');
            }
        }
    }
}

$folder = sys_get_temp_dir().'/plinth-bench-sheets-'.getmypid();
mkdir($folder);
$storeys = [];
for ($k = 0; $k < SHEETS; ++$k) {
    $of = Plans::standing(9000 + $k, 13, 11);
    $storeys[] = new Storey("s$k", "Storey $k", 3000.0 * $k, 3000.0, $of->walls, $of->openings, $of->rooms);
}
$plan = new Plan($storeys);
printf("== %d sheets, %d walls and %d openings a storey\n", SHEETS, count($storeys[0]->walls), count($storeys[0]->openings));
$beside = array_fill_keys(array_map(static fn (Storey $s): string => $s->id, $storeys), new PlanBeside(numbers: SheetSubject::numbered($plan)));
$subject = new SheetSubject('Bench', $plan, beside: $beside);
$sheets = array_map(static fn (Storey $s): PrintSheet => PlanningSet::plan($subject, $s->id, PaperSize::A1, false), $storeys);
printf("scales 1:%s\n", implode(', 1:', array_unique(array_map(static fn (PrintSheet $s): float => $s->views[0]->scale, $sheets))));

$svg = static fn (int $i): string => "$folder/$i.svg";
$convert = static fn (int $i): array => ['rsvg-convert', '--unlimited', '-f', 'pdf', '-o', "$folder/$i.pdf", $svg($i)];
$printer = new SheetPrinter(Files::tool(), new FileStore(new LocalStore("$folder/store"), new DiskSpace(), 1), dirname(__DIR__));
$ratios = [];
for ($round = 0; $round < ROUNDS; ++$round) {
    $painter = new SheetPainter($subject);
    $drawing = 0.0;
    $drawn = static function () use ($painter, $sheets, $svg, &$drawing): iterable {
        foreach ($sheets as $i => $sheet) {
            $begin = hrtime(true);
            $written = SvgWriter::write($painter->sheet($sheet, $i + 1, SHEETS));
            $drawing += (hrtime(true) - $begin) / 1e9;
            file_put_contents($svg($i), $written);
            yield $i => $written;
        }
    };
    $begin = hrtime(true);
    $bytes = strlen($printer->bound($drawn(), 'Bench', array_map(static fn (int $i): string => "Sheet $i", array_keys($sheets))));
    $whole = (hrtime(true) - $begin) / 1e9;
    $begin = hrtime(true);
    convertSideBySide(array_map($convert, array_keys($sheets)));
    $alone = (hrtime(true) - $begin) / 1e9;
    $ratios[] = $whole / $alone;
    printf("drawn %.2f s, printed and bound %.2f s (%.1f MB), rsvg-convert alone %.2f s: ratio %.2f\n", $drawing, $whole, $bytes / 1e6, $alone, $whole / $alone);
}
sort($ratios);
printf("ratio, middle of %d: %.2f (wanted: 2 at most); %.0f MB at most\n", ROUNDS, $ratios[intdiv(ROUNDS, 2)], memory_get_peak_usage() / 1e6);
exec('rm -r '.escapeshellarg($folder));

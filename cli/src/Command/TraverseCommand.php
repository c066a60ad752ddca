<?php

declare(strict_types=1);

namespace Plinth\Cli\Command;

use Plinth\Cli\Json;
use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Site\Leg;
use Plinth\Core\Site\Traverse;
use Plinth\Core\Units\Bearing;
use Plinth\Core\Units\LengthParser;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\OutputInterface;

#[AsCommand('traverse', 'Legs of a boundary to its corners', help: <<<'TEXT'
    Reads {"legs": [{"bearing", "length"}]} as they are written. Answers length, misclosure, precision, area and the adjusted corners
    (compass rule), in mm and m².
    TEXT)]
final class TraverseCommand extends Command
{
    protected function configure(): void
    {
        Json::option($this, 'the legs');
        Json::unitOption($this);
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $unit = Json::unit($input);
        $traverse = Traverse::closed(array_map(static function (JsonValue $leg) use ($unit): Leg {
            $leg->object(['bearing', 'length']);

            return new Leg(Bearing::parse($leg->get('bearing')->text(40)), LengthParser::parse($leg->get('length')->text(60), $unit)->mm);
        }, Json::document($input)->object(['legs'])->list('legs')));
        Json::write($output, [
            'lengthMm' => $traverse->lengthMm,
            'misclosureMm' => $traverse->misclosureMm(),
            'precision' => $traverse->precision(),
            'areaM2' => $traverse->areaM2(),
            'corners' => array_map(static fn (Point $p): array => $p->toArray(), $traverse->corners),
        ]);

        return self::SUCCESS;
    }
}

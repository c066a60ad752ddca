<?php

declare(strict_types=1);

namespace Plinth\Cli\Command;

use Plinth\Cli\Json;
use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Site\CurveFigure;
use Plinth\Core\Site\Leg;
use Plinth\Core\Site\Traverse;
use Plinth\Core\Site\Turns;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\OutputInterface;

#[AsCommand('traverse', 'Legs of a boundary to its corners', help: <<<'TEXT'
    Reads {"legs": [{"bearing", "length"}]} as they are written; a curved leg has {"radius", "turns": left or right, "gives": chord, arc or
    angle} as well, and its bearing is its chord's. Answers length, misclosure, precision, area and the adjusted corners
    (compass rule) with the rises of curves, in mm and m².
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
            $leg->object(['bearing', 'length', 'radius', 'turns', 'gives']);
            $bearing = $leg->get('bearing')->text(40);
            $length = $leg->get('length')->text(60);

            return null === $leg->optional('radius') ? Leg::written($bearing, $length, $unit) : Leg::written(
                $bearing,
                $length,
                $unit,
                $leg->get('radius')->text(60),
                $leg->get('turns')->choice(Turns::class),
                $leg->get('gives')->choice(CurveFigure::class),
            );
        }, Json::document($input)->object(['legs'])->list('legs')));
        Json::write($output, [
            'lengthMm' => $traverse->lengthMm,
            'misclosureMm' => $traverse->misclosureMm(),
            'precision' => $traverse->precision(),
            'areaM2' => $traverse->areaM2(),
            'corners' => array_map(static fn (Point $p): array => $p->toArray(), $traverse->contour->corners),
            'rises' => $traverse->contour->rises,
        ]);

        return self::SUCCESS;
    }
}

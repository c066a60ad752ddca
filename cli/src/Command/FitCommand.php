<?php

declare(strict_types=1);

namespace Plinth\Cli\Command;

use Plinth\Cli\Json;
use Plinth\Core\Exchange\FitDocument\FitReader;
use Plinth\Core\Exchange\FitDocument\FitWriter;
use Plinth\Core\Fitting\Advice;
use Plinth\Core\Fitting\Agreed;
use Plinth\Core\Fitting\FitStart;
use Plinth\Core\Fitting\Fitter;
use Plinth\Core\Fitting\Model;
use Plinth\Core\Fitting\Offer;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\OutputInterface;

#[AsCommand('fit', 'Known lengths, grid lines and control points to a fit', help: <<<'TEXT'
    Reads {"size": [w, h], "model": "similar|stretched|sheared|perspective|auto", "lengths", "grid", "points"}; docs/plan-format.md says
    what stands in each. With `auto` the simplest model is taken that no offer contradicts. Answers the map `pixelToMm` with its scale,
    turn, ±, residuals and advice.
    TEXT)]
final class FitCommand extends Command
{
    protected function configure(): void
    {
        Json::option($this, 'what is known');
    }

    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        [$observations, $frame, $model] = FitReader::read(Json::input($input));
        $fit = (new Fitter(($model ?? Model::Similar)->shape()))->fit($observations, $frame, FitStart::unknown());
        $fit = null === $model ? Agreed::withOffers($fit, $observations, $frame, FitStart::unknown()) : $fit;
        $offer = null === $model ? null : Offer::beyond($fit, $observations, $frame, FitStart::unknown(), Model::Perspective);
        Json::write($output, FitWriter::document($fit, Advice::on($fit, $observations, $frame), $offer));

        return self::SUCCESS;
    }
}

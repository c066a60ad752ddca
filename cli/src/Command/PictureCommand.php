<?php

declare(strict_types=1);

namespace Plinth\Cli\Command;

use Plinth\Cli\Json;
use Plinth\Cli\Picture\Picture;
use Plinth\Cli\Picture\Pictures;
use Plinth\Cli\WrongUsage;
use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Geometry\PixelToMm;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\OutputInterface;

/** A command that looks at a picture. */
abstract class PictureCommand extends Command
{
    public function __construct(private readonly Pictures $pictures)
    {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addArgument('image', InputArgument::REQUIRED, 'a scan or a photograph of a drawing');
    }

    final protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $file = Json::text($input->getArgument('image'));
        $picture = $this->pictures->read($file) ?? throw WrongUsage::cannotRead($file, 'image');
        Json::write($output, $this->answer($picture, $input));

        return self::SUCCESS;
    }

    /** @return array<string, mixed> */
    abstract protected function answer(Picture $picture, InputInterface $input): array;

    /** The map of `pixelToMm`: what `fit` answers under the same name. */
    final protected static function map(JsonValue $document): PixelToMm
    {
        $value = $document->get('pixelToMm');
        $m = [];
        foreach ($value->items() as $row) {
            foreach ($row->items() as $number) {
                $m[] = $number->number();
            }
        }
        if (9 !== \count($m)) {
            throw WrongUsage::noMap($value->at);
        }
        [$a, $b, $c, $d, $e, $f, $g, $h, $i] = $m;
        if (0.0 === $a * ($e * $i - $f * $h) - $b * ($d * $i - $f * $g) + $c * ($d * $h - $e * $g)) {
            throw WrongUsage::noMap($value->at);
        }

        return PixelToMm::ofMatrix([$a, $b, $c, $d, $e, $f, $g, $h, $i]);
    }
}

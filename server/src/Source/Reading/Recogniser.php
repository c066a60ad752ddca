<?php

declare(strict_types=1);

namespace Plinth\Server\Source\Reading;

use Plinth\Core\Ink\Page\GreyRaster;
use Plinth\Core\Ink\Reading\ReadWord;
use Plinth\Server\Source\FileStore;

/** The text recogniser: sparse words of a picture, each with its place. */
final readonly class Recogniser
{
    private const SECONDS = 240.0;

    public function __construct(private PictureTool $tool, private FileStore $files)
    {
    }

    /**
     * @param callable(): void $onLook throws when it may not go on
     *
     * @return list<ReadWord>
     */
    public function words(GreyRaster $picture, callable $onLook): array
    {
        $work = $this->files->workFolder();
        try {
            return self::read($this->tool, $work, $picture, $onLook);
        } finally {
            $this->files->removeFolder($work);
        }
    }

    /**
     * @param string $work a folder for this alone
     * @param callable(): void $onLook
     *
     * @return list<ReadWord>
     */
    public static function read(PictureTool $tool, string $work, GreyRaster $picture, callable $onLook): array
    {
        $file = $work.'/text.pgm';
        file_put_contents($file, \sprintf("P5 %d %d 255\n", $picture->width, $picture->height).$picture->bytes);

        return ReadWord::ofTable($tool->run(
            ['tesseract', $file, 'stdout', '--psm', '11', '-l', 'eng', 'tsv'],
            self::SECONDS,
            [$file],
            onLook: $onLook,
        ));
    }
}

<?php

declare(strict_types=1);

namespace Plinth\Cli\Picture;

use Plinth\Core\Ink\Page\GreyRaster;
use Plinth\Server\Source\Making\PictureHeader;
use Plinth\Server\Source\Reading\Format;
use Plinth\Server\Source\Reading\PictureFailure;

/** Decoded by the picture tool in the sandbox, where the kernel allows one. */
final readonly class SandboxedPictures implements Pictures
{
    private const SECONDS = 600.0;

    public function __construct(private Sandboxed $sandboxed)
    {
    }

    public function read(string $file): ?Picture
    {
        $file = (string) realpath($file);
        $format = '' === $file ? null : Format::ofContent($file);
        if (null === $format || \in_array($format, [Format::Pdf, Format::Svg, Format::Dxf], true)) {
            return null;
        }
        $tool = $this->sandboxed->tool();
        $work = $this->sandboxed->folder();
        $vips = static fn (string ...$command): string => $tool->run(
            ['vips', ...array_values($command)],
            self::SECONDS,
            [$file],
            $work,
            trusts: !$format->isTrusted() || $command[1] !== $file,
        );
        try {
            $vips('autorot', $file, $work.'/a.v');
            $vips('colourspace', $work.'/a.v', $picture = $work.'/b.v', 'b-w');
            if (1 !== PictureHeader::of($picture)->bands) {
                $vips('flatten', $picture, $picture = $work.'/c.v', '--background', '255');
            }
            $head = PictureHeader::of($picture);

            return new Picture(
                new GreyRaster(
                    $head->width,
                    $head->height,
                    (string) file_get_contents($picture, false, null, PictureHeader::BYTES, max(0, $head->width * $head->height)),
                ),
            );
        } catch (PictureFailure) {
            return null;
        } finally {
            $this->sandboxed->remove($work);
        }
    }
}

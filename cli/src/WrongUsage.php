<?php

declare(strict_types=1);

namespace Plinth\Cli;

/** Asked for in a way that the program does not know, or of a file that is none. */
final class WrongUsage extends \InvalidArgumentException
{
    private function __construct(string $message, public readonly string $at)
    {
        parent::__construct($message);
    }

    public static function missingOption(string $name): self
    {
        return new self(\sprintf('--%s needs a value.', $name), $name);
    }

    public static function unknownUnit(string $unit): self
    {
        return new self(\sprintf('There is no unit “%s”: use mm, cm, m, ft or in.', $unit), 'unit');
    }

    /** @param list<string> $formats that there are */
    public static function unknownFormat(string $format, array $formats): self
    {
        return new self(\sprintf('There is no format “%s”: use one of %s.', $format, implode(', ', $formats)), 'format');
    }

    public static function unknownLayers(string $layers): self
    {
        return new self(\sprintf('Layers are not called “%s”: use plain or iso13567.', $layers), 'layers');
    }

    public static function noSheet(string $sheet, int $count): self
    {
        return new self(
            0 === $count ? 'There are no sheets in this document.' : \sprintf(
                'There is no sheet “%s”: write a number from 1 to %d, or as pdf: all.',
                $sheet,
                $count,
            ),
            'sheet',
        );
    }

    public static function unknownPaper(string $paper): self
    {
        return new self(\sprintf('There is no paper “%s”: use A4, A3, A2, A1 or A0.', $paper), 'paper');
    }

    public static function noScale(string $scale): self
    {
        return new self(\sprintf('“%s” is no scale: write 100 for 1:100, from 1 to 10 000.', $scale), 'scale');
    }

    public static function cannotRead(string $file, string $at): self
    {
        return new self(\sprintf('%s cannot be read.', $file), $at);
    }

    public static function noLines(string $file): self
    {
        return new self(
            \sprintf('%s is no archive, plan document, or drawing whose lines can be read: dxf, svg, or a page of a pdf.', $file),
            'file',
        );
    }

    public static function cannotWrite(string $file): self
    {
        return new self(\sprintf('%s cannot be written: look whether the folder exists and has room.', $file), 'out');
    }

    public static function noStorey(string $id): self
    {
        return new self('' === $id ? 'The plan has no storey.' : \sprintf('The plan has no storey “%s”.', $id), 'storey');
    }

    public static function noLine(string $text): self
    {
        return new self(\sprintf('“%s” is no line: write two places or more as "x y; x y", mm.', $text), 'line');
    }

    public static function noMap(string $at): self
    {
        return new self('This is no map from pixels to millimetres: nine numbers in three rows that can be turned round.', $at);
    }
}

<?php

declare(strict_types=1);

namespace Plinth\Core\Console;

final class WrongUsage extends \InvalidArgumentException
{
    private function __construct(string $message, public readonly string $at)
    {
        parent::__construct($message);
    }

    public static function unknownCommand(string $word): self
    {
        return new self(\sprintf('There is no command “%s”: use length, fit, skew, derive or export.', $word), $word);
    }

    public static function unknownOption(string $name): self
    {
        return new self(\sprintf('There is no option --%s.', $name), $name);
    }

    public static function missingOption(string $name): self
    {
        return new self(\sprintf('--%s needs a value.', $name), $name);
    }

    public static function unknownUnit(string $unit): self
    {
        return new self(\sprintf('There is no unit “%s”: use mm, cm, m, ft or in.', $unit), 'unit');
    }

    public static function unknownFormat(string $format): self
    {
        return new self(\sprintf('There is no format “%s”: use dxf.', $format), 'export');
    }

    public static function cannotRead(string $file): self
    {
        return new self(\sprintf('%s cannot be read.', $file), 'in');
    }

    public static function cannotWrite(string $file): self
    {
        return new self(\sprintf('%s cannot be written: look whether the folder exists and has room.', $file), 'out');
    }

    public static function noStorey(string $id): self
    {
        return new self('' === $id ? 'The plan has no storey.' : \sprintf('The plan has no storey “%s”.', $id), 'storey');
    }
}

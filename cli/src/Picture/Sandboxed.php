<?php

declare(strict_types=1);

namespace Plinth\Cli\Picture;

use Plinth\Server\Sandbox\Sandbox;
use Plinth\Server\Sandbox\SandboxState;
use Plinth\Server\Source\Reading\PictureTool;

/** The picture commands in the sandbox, where the kernel allows one, and folders for them to work in. */
final readonly class Sandboxed
{
    public function __construct(public string $root)
    {
    }

    public function tool(): PictureTool
    {
        exec('bwrap --unshare-all --ro-bind / / true 2>/dev/null', $out, $code);

        return new PictureTool(new Sandbox(0 === $code ? SandboxState::On : SandboxState::Off, $this->root));
    }

    public function folder(): string
    {
        $folder = sys_get_temp_dir().'/plinth-'.bin2hex(random_bytes(6));
        mkdir($folder, 0o700);

        return $folder;
    }

    public function remove(string $folder): void
    {
        $made = glob($folder.'/*');
        array_map(unlink(...), false === $made ? [] : $made);
        rmdir($folder);
    }
}

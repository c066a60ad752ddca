<?php

declare(strict_types=1);

$preload = ($_SERVER['PLINTH_VAR'] ?? dirname(__DIR__, 2).'/var').'/cache/prod/Plinth_Server_KernelProdContainer.preload.php';
if (is_file($preload)) {
    require $preload;
}

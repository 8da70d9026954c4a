"""Making sure that what is eaten has been made safe."""
